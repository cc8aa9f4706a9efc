import client, { answer, type EventEntry, type Practice, type Proof } from "../../api/client";
import folds from "../../parts/Fold.module.css";
import log from "../../parts/Log.module.css";
import { SaveAs } from "../../parts/SaveAs";
import { timeOf } from "../../reading/dates";
import classes from "./EventLog.module.css";
import { eventWords } from "./words";

/** Everything ever recorded here, newest first, what does not count with why. */
export function EventLog({ proof, practice }: { proof: Proof; practice: Practice }) {
  const sources = new Map(proof.state.sources.map((s) => [s.id, s.label]));
  const events = () =>
    answer(client.GET("/api/proofs/{proof_id}/log", { params: { path: { proof_id: proof.id } } }));
  return (
    <details className={folds.fold}>
      <summary>
        {proof.events.length} {proof.events.length === 1 ? "event" : "events"} recorded
      </summary>
      <ul className={log.readings}>
        {[...proof.events].reverse().map((event) => (
          <li key={event.id}>
            <span className={log.seen}>
              <b>{eventWords({ ...event.entry, type: event.type } as EventEntry, practice, sources)}</b>
              <span className={folds.reason}>
                {[timeOf(event.at, proof.practice), event.tester_label, event.by].filter(Boolean).join(" · ")}
              </span>
              {event.why.map((why) => (
                <em key={why} className={folds.strained}>
                  {why}
                </em>
              ))}
              {event.entry.note ? <em className={folds.strained}>{String(event.entry.note)}</em> : null}
            </span>
          </li>
        ))}
      </ul>
      <SaveAs
        kind="isolation log"
        name={`${proof.name}, proof of isolation`}
        fetch={events}
        className={classes.save}
      />
    </details>
  );
}
