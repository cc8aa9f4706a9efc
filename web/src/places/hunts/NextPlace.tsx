import { Button } from "@mantine/core";
import { Link } from "react-router";
import type { Hunt } from "../../api/client";
import type { HuntBody } from "../../api/outbox/waiting";
import classes from "./Hunts.module.css";
import { OhmsSeen, VoltsSeen } from "./Numbers";
import { percent, sentence, TASKS } from "./words";

export type KeepSeen = (body: HuntBody, said: string) => string;

/** Where to go, what to do there, and what it showed in one tap. */
export function NextPlace({ hunt, keep }: { hunt: Hunt; keep: KeepSeen }) {
  const next = hunt.answer.next;
  if (next === null) return <Over hunt={hunt} keep={keep} />;
  const seen = (entry: object, said: string) =>
    keep({ kind: "seen", entry: entry as HuntBody["entry"] }, said);
  return (
    <>
      <h2 className={classes.where}>
        {TASKS[next.do]} {hunt.next_name}
      </h2>
      <p>
        <strong>{next.expected_minutes} min</strong> still to come
        {hunt.saved_minutes > 0 && `, ${hunt.saved_minutes} fewer than in order`}.
      </p>
      {hunt.advice && <p className={classes.first}>{hunt.advice}</p>}
      <ol className={classes.steps}>
        {hunt.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      <ProofLine hunt={hunt} />
      <div className={classes.outcomes}>
        {next.outcomes
          .filter((outcome) => outcome.seen)
          .map((outcome) => (
            <button
              key={outcome.when}
              type="button"
              className={classes.outcome}
              onClick={() => seen(outcome.seen ?? {}, `${hunt.next_name}: ${outcome.when}`)}
            >
              <strong>{sentence(outcome.when)}</strong>
              <span className="quiet">
                {percent(outcome.share)}
                {thenOf(hunt, outcome.when)}
              </span>
            </button>
          ))}
      </div>
      <details className={classes.fold}>
        <summary>Why here</summary>
        <p>{next.why}</p>
      </details>
      {hunt.kind === "poor-joint" && next.do === "measure" && (
        <VoltsSeen hunt={hunt} at={next.at} seen={seen} />
      )}
      {hunt.kind === "short" && <OhmsSeen hunt={hunt} seen={seen} />}
    </>
  );
}

function thenOf(hunt: Hunt, when: string) {
  const then = hunt.ahead.find((one) => one.when === when)?.then;
  return then ? ` → ${then}` : "";
}

/** Whether the circuit is proved dead, where a hand goes in. */
function ProofLine({ hunt }: { hunt: Hunt }) {
  const task = hunt.answer.next?.do;
  if (hunt.kind !== "short" && task !== "open") return null;
  if (hunt.proof && hunt.proof_state === "dead")
    return (
      <p>
        <Link to={`/prove-dead/${hunt.proof}`}>Proved dead</Link>, as long as its proof stands.
      </p>
    );
  const to = hunt.proof ? `/prove-dead/${hunt.proof}` : `/prove-dead/new?circuit=${hunt.circuit.id}`;
  return (
    <p className={classes.first}>
      Treat as live: this circuit is not proved dead. <Link to={to}>Prove dead</Link>
    </p>
  );
}

/** There is nothing more to look for: it was found, is clear, or contradicts itself. */
function Over({ hunt, keep }: { hunt: Hunt; keep: KeepSeen }) {
  const name = { found: `Found: ${hunt.said}`, clear: "Clear", contradictory: "These cannot both be" }[
    hunt.state as string
  ];
  return (
    <>
      <h2 className={classes.where}>{name ?? sentence(hunt.said)}</h2>
      {hunt.state === "contradictory" && <p role="alert">{hunt.said}</p>}
      {hunt.state === "clear" && <p>{sentence(hunt.said)}.</p>}
      {hunt.advice && <p className={classes.first}>{hunt.advice}</p>}
      <ol className={classes.steps}>
        {hunt.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {hunt.state === "found" && (
        <Button size="lg" onClick={() => keep({ kind: "mended", entry: {} }, "Mended")}>
          Mended
        </Button>
      )}
      {(hunt.state === "mended" || hunt.state === "clear") && (
        <Button size="lg" onClick={() => keep({ kind: "closed", entry: {} }, "Closed")}>
          Close this hunt
        </Button>
      )}
    </>
  );
}
