import type { AlongRun, Hunt } from "../../../api/client";
import { sentence } from "../../../reading/sentence";
import classes from "../Hunts.module.css";
import { Share } from "../Share";
import { STATES } from "../words";

/** The run from the board down: every stretch and every box with its share, and what was seen there. */
export function RunDown({ hunt, run }: { hunt: Hunt; run: AlongRun }) {
  const next = run.answer.next?.at;
  const metres = run.answer.distance_m;
  const most = Math.max(...run.points.flatMap((point) => [point.share, point.cable_share]), 0.01);
  return (
    <>
      <p className="quiet">
        {STATES[hunt.state].name}
        {metres &&
          hunt.state === "hunting" &&
          `: ${metres[0]} to ${metres[1]} m of cable from ${run.points[0]?.name}`}
      </p>
      <ol className={classes.run}>
        {run.points.map((point) => (
          <li key={point.id}>
            {point.after !== "" && (
              <div className={classes.cable} data-suspect={point.cable_share > 0 || undefined}>
                <span className={classes.line} aria-hidden />
                <span className="quiet">{point.length_m} m</span>
                <Share of={point.cable_share} most={most} what={`the cable to ${point.name}`} />
              </div>
            )}
            <div
              className={classes.box}
              data-suspect={point.share > 0 || undefined}
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
              <Share of={point.share} most={most} what={point.name} />
            </div>
          </li>
        ))}
      </ol>
    </>
  );
}
