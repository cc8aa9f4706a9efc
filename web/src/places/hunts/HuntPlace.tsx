import { useParams } from "react-router";
import type { Hunt } from "../../api/client";
import { useKeep } from "../../api/outbox/useOutbox";
import { useHunt } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { WaitingList } from "../../parts/WaitingList";
import classes from "./Hunts.module.css";
import { Marks } from "./Marks";
import { NextPlace, OnItsWay } from "./NextPlace";
import { RunDown } from "./RunDown";
import { STATES } from "./words";

export function HuntPlace() {
  const { huntId = "" } = useParams();
  const hunt = useHunt(huntId);
  if (hunt.isError && !hunt.data) return <Failure error={hunt.error} retry={() => hunt.refetch()} />;
  if (!hunt.data) return <div aria-busy="true" />;
  return <Hunting key={huntId} hunt={hunt.data} lost={hunt.isError} />;
}

/** What to do next, and beside it the run with what each part is suspected. */
function Hunting({ hunt, lost }: { hunt: Hunt; lost: boolean }) {
  const { keep, waiting } = useKeep("hunt-event", hunt.id, hunt.title);
  const { last } = hunt;
  const onItsWay = waiting.taken.at(-1);
  const isOver = hunt.state === "closed";
  return (
    <Page
      title={hunt.title}
      under={`${hunt.site.name}. ${hunt.happened}; hunting ${hunt.hunted}.`}
      back={["/hunts", "Hunt"]}
    >
      {lost && (
        <p role="alert" className={classes.wrong}>
          The server cannot be reached. What was recorded here is safe; what is shown is the last known.
        </p>
      )}
      <div className={classes.hunt}>
        <section className={classes.next} aria-label="What comes next">
          {onItsWay ? <OnItsWay hunt={hunt} said={onItsWay.said} /> : <NextPlace hunt={hunt} keep={keep} />}
          <WaitingList waiting={waiting} />
          {last && !onItsWay && (
            <button
              type="button"
              className={classes.back}
              onClick={() =>
                keep({ kind: "taken-back", entry: { event: last.event } }, `Taken back: ${last.text}`)
              }
            >
              Take back “{last.text}”
            </button>
          )}
          {hunt.seen.length > 0 && (
            <details className={classes.fold}>
              <summary>{hunt.seen.length === 1 ? "1 thing seen" : `${hunt.seen.length} things seen`}</summary>
              <ol>
                {hunt.seen.map((one) => (
                  <li key={one.event} data-contradicts={one.contradicts || undefined}>
                    {one.contradicts && "≠ "}
                    {one.text}
                    <span className="quiet"> {one.by}</span>
                  </li>
                ))}
              </ol>
            </details>
          )}
          {!isOver && <Marks hunt={hunt} keep={keep} />}
        </section>
        <section aria-label="The run">
          <p className="quiet">
            {STATES[hunt.state].name}
            {hunt.answer.distance_m &&
              hunt.state === "hunting" &&
              `: ${hunt.answer.distance_m[0]} to ${hunt.answer.distance_m[1]} m of cable from ${hunt.points[0]?.name}`}
          </p>
          <RunDown hunt={hunt} />
        </section>
      </div>
    </Page>
  );
}
