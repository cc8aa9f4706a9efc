import type { Hunt } from "../../api/client";
import classes from "./Hunts.module.css";
import { percent, sentence } from "./words";

/** The run from the board down: every stretch and every box with its share, and what was seen there. */
export function RunDown({ hunt }: { hunt: Hunt }) {
  const next = hunt.answer.next?.at;
  const most = Math.max(...hunt.points.flatMap((point) => [point.share, point.cable_share]), 0.01);
  return (
    <ol className={classes.run}>
      {hunt.points.map((point) => (
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
  );
}

/** Drawn against the most suspected. */
function Share({ of, most, what }: { of: number; most: number; what: string }) {
  if (of === 0) return <span className={classes.share} />;
  return (
    <span className={classes.share}>
      <span className={classes.bar} style={{ width: `${Math.max(3, (100 * of) / most)}%` }} aria-hidden />
      <span>
        <span className={classes.hidden}>{what}: </span>
        {percent(of)}
      </span>
    </span>
  );
}
