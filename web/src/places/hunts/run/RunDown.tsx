import type { AlongRun, Hunt } from "../../../api/client";
import { useIsShown, useMarks } from "../../../api/practice";
import { Unplaced } from "../../../parts/Unplaced";
import { sentence } from "../../../reading/sentence";
import classes from "../Hunts.module.css";
import { Share } from "../Share";
import { Strike } from "../Strike";
import { STATES } from "../words";

/** The run from the board down: every stretch and every box with its share, and what was seen there. */
export function RunDown({ hunt, run }: { hunt: Hunt; run: AlongRun }) {
  const isShown = useIsShown();
  const marks = useMarks();
  /** What is left: by what was seen, or in a case by one's own mind. */
  const isLeft = (id: string, share: number) => (isShown ? share > 0 : !marks?.out.has(id)) || undefined;
  const strike = (id: string, what: string) =>
    marks && <Strike what={what} isOut={marks.out.has(id)} onTap={() => marks.toggle(id)} />;
  const next = isShown ? run.answer.next?.at : undefined;
  const metres = run.answer.distance_m;
  const most = Math.max(...run.points.flatMap((point) => [point.share, point.cable_share]), 0.01);
  return (
    <>
      {isShown && (
        <p className="quiet">
          {STATES[hunt.state].name}
          {metres &&
            hunt.state === "hunting" &&
            `: ${metres[0]} to ${metres[1]} m of cable from ${run.points[0]?.name}`}
        </p>
      )}
      <ol className={classes.run}>
        {run.points.map((point) => (
          <li key={point.id}>
            {point.after !== "" && (
              <div className={classes.cable} data-suspect={isLeft(`to ${point.name}`, point.cable_share)}>
                <span className={classes.line} aria-hidden />
                <span className="quiet">{point.length_m} m</span>
                {isShown && <Share of={point.cable_share} most={most} what={`the cable to ${point.name}`} />}
                {strike(`to ${point.name}`, `the cable to ${point.name}`)}
              </div>
            )}
            <Unplaced error={marks?.errorAt(`to ${point.name}`) ?? null} />
            <div
              className={classes.box}
              data-suspect={isLeft(point.name, point.share)}
              aria-current={point.id === next ? "step" : undefined}
            >
              <span className={classes.shape} aria-hidden />
              <span>
                <strong>{sentence(point.name)}</strong>
                {point.hidden && <span className="quiet"> hidden</span>}
                {point.id === run.standing_at && hunt.seen.length > 0 && (
                  <span className={classes.here}>you were here last</span>
                )}
                {point.saw.map((saw) => (
                  <span key={saw} className={classes.saw}>
                    {saw}
                  </span>
                ))}
              </span>
              {isShown && <Share of={point.share} most={most} what={point.name} />}
              {point.after !== "" && strike(point.name, point.name)}
            </div>
            <Unplaced error={marks?.errorAt(point.name) ?? null} />
          </li>
        ))}
      </ol>
    </>
  );
}
