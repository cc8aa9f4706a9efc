import { Button } from "@mantine/core";
import { memo } from "react";
import type { Bench, Practice, Reading } from "../../api/client";
import folds from "../../parts/Fold.module.css";
import classes from "../../parts/Log.module.css";
import { dayAndTimeOf } from "../../reading/dates";
import { circumstances, ends, seen } from "../../reading/entry";
import { earthSaid } from "../../reading/referenceEarth";

/** Every reading ever recorded here, newest first; corrected and withdrawn ones stay visible. */
export const Log = memo(function Log(props: {
  bench: Bench;
  practice: Practice;
  onCorrect: (reading: Reading) => void;
  onWithdraw: (reading: Reading) => void;
}) {
  const { bench, practice } = props;
  const why = new Map(
    bench.interpretation.not_counted.map((n) => [
      n.reading,
      n.warns ? `warns: ${n.why}` : `does not count: ${n.why}`,
    ]),
  );
  if (bench.readings.length === 0 && bench.dead_tests.length === 0) return null;
  return (
    <>
      {bench.dead_tests.length > 0 && <DeadTests bench={bench} practice={practice} />}
      <details className={folds.fold}>
        <summary>
          {bench.readings.length === 1 ? "1 reading" : `${bench.readings.length} readings`} recorded
        </summary>
        <ul className={classes.readings}>
          {[...bench.readings].reverse().map((reading) => (
            <li key={reading.id} data-status={reading.status}>
              <span className={classes.seen}>
                <b>{ends(reading.entry, practice)}</b> <span className="mono">{seen(reading.entry)}</span>
                <span className={folds.reason}>
                  {[
                    earthSaid(reading.entry, practice),
                    circumstances(reading.entry),
                    reading.source,
                    reading.tester_label,
                    dayAndTimeOf(reading.taken_at, practice.id),
                    reading.by,
                  ]
                    .filter(Boolean)
                    .join(" · ")}
                </span>
                {reading.status !== "counts" && <em className={folds.strained}>{reading.status}, kept</em>}
                {why.has(reading.id) && <em className={folds.strained}>{why.get(reading.id)}</em>}
              </span>
              {reading.status === "counts" && (
                <span className={classes.acts}>
                  <Button variant="subtle" onClick={() => props.onCorrect(reading)}>
                    Correct
                  </Button>
                  <Button variant="subtle" onClick={() => props.onWithdraw(reading)}>
                    Withdraw
                  </Button>
                </span>
              )}
            </li>
          ))}
        </ul>
      </details>
    </>
  );
});

/** What the circuit's sheet of dead tests says here; it is corrected there. */
function DeadTests({ bench, practice }: { bench: Bench; practice: Practice }) {
  return (
    <details className={folds.fold}>
      <summary>
        {bench.dead_tests.length === 1 ? "1 dead test counts" : `${bench.dead_tests.length} dead tests count`}
      </summary>
      <ul className={classes.readings}>
        {bench.dead_tests.map((test) => (
          <li key={test.id}>
            <b>{ends(test.entry, practice)}</b> <span className="mono">{seen(test.entry)}</span>
            <span className={folds.reason}>
              {[circumstances(test.entry), dayAndTimeOf(test.taken_at, practice.id), test.by]
                .filter(Boolean)
                .join(" · ")}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}
