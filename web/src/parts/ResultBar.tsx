import type { ResultBar as Shares } from "../api/client";
import classes from "./ResultBar.module.css";

const percent = (share: number) => `${100 * share}%`;

/** Where a reading lies between nothing, what was expected and the limit. The numbers beside it say the same. */
export function ResultBar({ bar, fails }: { bar: Shares; fails: boolean }) {
  const [from = 0, to = 1] = bar.passes;
  const [low = bar.at, high = bar.at] = bar.reads;
  return (
    <div className={classes.bar} aria-hidden="true" data-fails={fails || undefined}>
      <span className={classes.passes} style={{ left: percent(from), width: percent(to - from) }} />
      {bar.expected !== null && bar.expected !== undefined && (
        <span className={classes.expected} style={{ left: percent(bar.expected) }} />
      )}
      <span className={classes.reads} style={{ left: percent(low), width: percent(high - low) }} />
      <span className={classes.at} style={{ left: percent(bar.at) }} />
    </div>
  );
}

export const BarKey = () => (
  <p className={classes.key}>
    <span className={classes.keyPasses} aria-hidden="true" /> passes
    <span className={classes.keyExpected} aria-hidden="true" /> expected, or last time
    <span className={classes.keyAt} aria-hidden="true" /> reading ± error
  </p>
);
