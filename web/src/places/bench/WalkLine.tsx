import type { Sweep } from "../../api/client";
import classes from "./Sweep.module.css";

/** A walk as a line from its first place to its last: filled where the detector sounds, hollow where it is silent. */
export function WalkLine({ stations }: { stations: Sweep["stations"] }) {
  const first = stations[0];
  const last = stations.at(-1);
  const sounding = stations.filter((s) => s.alarm).map((s) => s.m);
  return (
    <div
      className={classes.walk}
      role="img"
      aria-label={`From ${first?.m} to ${last?.m} m; it sounds at ${sounding.length ? `${sounding.join(", ")} m` : "no place"}`}
    >
      <div className={classes.line}>
        {stations.map((s) => (
          <i
            key={s.m}
            className={classes.station}
            data-alarm={s.alarm || undefined}
            style={{ left: `${100 * s.across}%` }}
          />
        ))}
      </div>
      <div className={`mono ${classes.ends}`}>
        <span>{first?.m} m</span>
        <span>{last?.m} m</span>
      </div>
    </div>
  );
}
