import { Button } from "@mantine/core";
import { Link } from "react-router";
import type { Hunt } from "../../api/client";
import type { HuntBody } from "../../api/outbox/waiting";
import classes from "./Hunts.module.css";
import { OhmsSeen, VoltsSeen } from "./Numbers";
import { percent, sentence } from "./words";

export type KeepSeen = (body: HuntBody, said: string) => string;

/** Where to go, what to do there, and what it showed in one tap. */
export function NextPlace({ hunt, keep }: { hunt: Hunt; keep: KeepSeen }) {
  const next = hunt.answer.next;
  if (next === null) return <Over hunt={hunt} keep={keep} />;
  const seen = (entry: object, said: string) =>
    keep({ kind: "seen", entry: entry as HuntBody["entry"] }, said);
  return (
    <>
      <h2 className={classes.where}>{sentence(hunt.next_title)}</h2>
      <p>
        <strong>{next.expected_minutes} min</strong> still to come
        {hunt.saved_minutes > 0 && `, ${hunt.saved_minutes} fewer than in order`}.
      </p>
      {hunt.seen.length === 0 && <p className={classes.first}>{hunt.first}</p>}
      {hunt.advice && <p className={classes.first}>{hunt.advice}</p>}
      <Joints hunt={hunt} />
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
                {outcome.share < 1 && percent(outcome.share)}
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
        <VoltsSeen key={next.at} hunt={hunt} at={next.at} seen={seen} />
      )}
      {hunt.kind === "short" && <OhmsSeen hunt={hunt} seen={seen} />}
    </>
  );
}

/** What was just told is not at the server yet: what follows from it is known already, and nothing is told twice. */
export function OnItsWay({ hunt, said }: { hunt: Hunt; said: string }) {
  const then = hunt.ahead.find((one) => said.endsWith(`: ${one.when}`))?.then;
  return (
    <div aria-live="polite">
      <h2 className={classes.where}>Recorded</h2>
      <p>{said}.</p>
      {then && (
        <p>
          Then: <strong>{then}</strong>.
        </p>
      )}
    </div>
  );
}

/** Poor joints that were measured. */
function Joints({ hunt }: { hunt: Hunt }) {
  return hunt.joints.map((joint) => (
    <p key={joint}>
      <strong>{joint}</strong>
    </p>
  ));
}

function thenOf(hunt: Hunt, when: string) {
  const then = hunt.ahead.find((one) => one.when === when)?.then;
  return then ? ` → ${then}` : "";
}

/** Whether the circuit is proved dead, where a hand goes in. */
function ProofLine({ hunt }: { hunt: Hunt }) {
  const handGoesIn = hunt.kind === "short" || hunt.answer.next?.do === "open" || hunt.state === "found";
  if (!handGoesIn) return null;
  if (hunt.proof && hunt.proof_state === "dead")
    return (
      <p>
        <Link to={`/prove-dead/${hunt.proof}`}>Proved dead</Link>, as long as its proof stands.
      </p>
    );
  const to = hunt.proof
    ? `/prove-dead/${hunt.proof}`
    : `/prove-dead/new?site=${hunt.site.id}&circuit=${hunt.circuit.id}`;
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
      <Joints hunt={hunt} />
      <ol className={classes.steps}>
        {hunt.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {hunt.state === "found" && <ProofLine hunt={hunt} />}
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
