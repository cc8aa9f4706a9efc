import classes from "./Hunts.module.css";
import { percent } from "./words";

/** How much something is suspected, drawn against the most suspected. */
export function Share({ of, most, what }: { of: number; most: number; what: string }) {
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
