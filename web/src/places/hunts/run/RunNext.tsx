import type { AlongRun } from "../../../api/client";
import type { AtHunt } from "../HuntPlace";
import classes from "../Hunts.module.css";
import { ProofLine } from "../ProofLine";
import { Steps } from "../Steps";
import { percent, sentence } from "../words";
import { Joints } from "./Joints";
import { OhmsSeen, VoltsSeen } from "./Numbers";

type Next = NonNullable<AlongRun["answer"]["next"]>;

/** Where to go, what to do there, and what it showed in one tap. */
export function RunNext({ hunt, run, next, seen }: AtHunt & { run: AlongRun; next: Next }) {
  const handGoesIn = hunt.kind === "short" || next.do === "open";
  return (
    <>
      <h2 className={classes.where}>{sentence(run.next_title)}</h2>
      <p>
        <strong>{next.expected_minutes} min</strong> still to come
        {run.saved_minutes > 0 && `, ${run.saved_minutes} fewer than in order`}.
      </p>
      {hunt.seen.length === 0 && <p className={classes.first}>{hunt.first}</p>}
      {run.advice && <p className={classes.first}>{run.advice}</p>}
      <Joints run={run} />
      <Steps steps={hunt.steps} />
      {handGoesIn && <ProofLine hunt={hunt} />}
      <div className={classes.outcomes}>
        {next.outcomes
          .filter((outcome) => outcome.seen)
          .map((outcome) => (
            <button
              key={outcome.when}
              type="button"
              className={classes.outcome}
              onClick={() => seen(outcome.seen ?? {}, `${run.next_name}: ${outcome.when}`)}
            >
              <strong>{sentence(outcome.when)}</strong>
              <span className="quiet">
                {outcome.share < 1 && percent(outcome.share)}
                {thenOf(run, outcome.when)}
              </span>
            </button>
          ))}
      </div>
      <details className={classes.fold}>
        <summary>Why here</summary>
        <p>{next.why}</p>
      </details>
      {hunt.kind === "poor-joint" && next.do === "measure" && (
        <VoltsSeen key={next.at} hunt={hunt} run={run} at={next.at} seen={seen} />
      )}
      {hunt.kind === "short" && <OhmsSeen run={run} seen={seen} />}
    </>
  );
}

function thenOf(run: AlongRun, when: string) {
  const then = run.ahead.find((one) => one.when === when)?.then;
  return then ? ` → ${then}` : "";
}
