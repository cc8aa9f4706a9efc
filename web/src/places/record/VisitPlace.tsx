import { Button, Textarea } from "@mantine/core";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Visit } from "../../api/client";
import { useCutOff } from "../../api/freshness";
import { useKeep } from "../../api/outbox/useOutbox";
import type { VisitBody } from "../../api/outbox/waiting";
import { LOOK_AGAIN_MS, useVisit } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import folds from "../../parts/Fold.module.css";
import { LastKnown } from "../../parts/LastKnown";
import { Page } from "../../parts/Page";
import { WaitingList } from "../../parts/WaitingList";
import { dayAndTimeOf, dayOf } from "../../reading/dates";
import { Bring } from "./Bring";
import { Open } from "./Open";
import classes from "./Record.module.css";
import { VisitSteps } from "./VisitSteps";
import { whereIs } from "./where";

export type KeepVisit = (kind: VisitBody["kind"], entry: VisitBody["entry"], said: string) => void;

export function VisitPlace() {
  const { visitId = "" } = useParams();
  const visit = useVisit(visitId);
  const cutOff = useCutOff(visit, LOOK_AGAIN_MS);
  if (visit.isError && !visit.data) return <Failure error={visit.error} retry={() => visit.refetch()} />;
  if (!visit.data) return <div aria-busy="true" />;
  return <AtVisit key={visitId} visit={visit.data} cutOff={cutOff} />;
}

/** What comes next and all there is to do; beside it what is open, who to warn and what to bring. */
function AtVisit({ visit, cutOff }: { visit: Visit; cutOff: number | null }) {
  const { keep, waiting } = useKeep("visit-event", visit.id, visit.site.name);
  const told: KeepVisit = (kind, entry, said) => keep({ kind, entry }, said);
  const practice = visit.practice;
  return (
    <Page
      title={visit.site.name}
      under={`${visit.why} · ${dayOf(visit.planned_for, practice)} · ${visit.people.join(", ")}`}
      back={["/record", "Record"]}
      actions={
        <Button component={Link} to={`/record/reports/visit/${visit.id}`} variant="default">
          Report and sign-off
        </Button>
      }
    >
      {cutOff !== null && (
        <p role="alert" className={classes.cutOff}>
          <LastKnown since={cutOff} /> What is recorded here is kept, and sent when the line is back.
        </p>
      )}
      <div className={classes.columns}>
        <div>
          <Next visit={visit} keep={told} waits={waiting.taken.length > 0} />
          <WaitingList waiting={waiting} />
          <VisitSteps visit={visit} />
        </div>
        <div>
          <Open visit={visit} keep={told} />
          {visit.state !== "closed" && <GoesDark visit={visit} />}
          {visit.state !== "closed" && <Bring visit={visit} />}
          <Way visit={visit} />
          <Notes visit={visit} keep={told} />
        </div>
      </div>
    </Page>
  );
}

/** The one thing to do: set out, the next step, or close. */
function Next({ visit, keep, waits }: { visit: Visit; keep: KeepVisit; waits: boolean }) {
  const { next } = visit;
  const left = visit.steps - visit.done;
  if (visit.state === "closed")
    return (
      <section className={classes.next} aria-label="What comes next">
        <h2>Closed</h2>
        <p>
          {visit.closed_at && dayAndTimeOf(visit.closed_at, visit.practice)}. {visit.done} of {visit.steps}{" "}
          done
          {visit.open > 0 && `, ${visit.open} left open`}.
        </p>
        <Button variant="default" disabled={waits} onClick={() => keep("begun", {}, "Visit begun again")}>
          Go on with it
        </Button>
      </section>
    );
  if (visit.state === "planned")
    return (
      <section className={classes.next} aria-label="What comes next">
        <h2>
          {left === 1 ? "1 step" : `${left} steps`}, about {minutes(visit.minutes)}
        </h2>
        <p>Check what is to be brought and who has to be warned, then set out.</p>
        <Button size="lg" disabled={waits} onClick={() => keep("begun", {}, "Visit begun")}>
          Begin this visit
        </Button>
      </section>
    );
  return (
    <section className={classes.next} aria-label="What comes next">
      <h2>
        {next ? next.title : visit.steps > 0 ? "All steps are done" : "No circuit of this plan is in use"}
      </h2>
      <p>
        {next
          ? [next.said, `${left} of ${visit.steps} left, about ${minutes(visit.minutes)}`]
              .filter(Boolean)
              .join(". ")
          : "Make the report and sign it, then close the visit."}
        .
      </p>
      <div className={classes.acts}>
        {next ? (
          <Button component={Link} to={whereIs(next, visit.site.id)} size="lg">
            Go there
          </Button>
        ) : (
          <Button component={Link} to={`/record/reports/visit/${visit.id}`} size="lg">
            Report and sign-off
          </Button>
        )}
        <Button
          variant="default"
          size="lg"
          disabled={waits}
          onClick={() => keep("closed", {}, "Visit closed")}
        >
          Close this visit
        </Button>
      </div>
      {visit.open > 0 && (
        <p className="quiet">What is open stays listed here and on Today until it is closed itself.</p>
      )}
    </section>
  );
}

/** "1 h 35 min". */
export function minutes(all: number): string {
  const [h, min] = [Math.floor(all / 60), Math.round(all % 60)];
  return [h > 0 && `${h} h`, (min > 0 || h === 0) && `${min} min`].filter(Boolean).join(" ");
}

function GoesDark({ visit }: { visit: Visit }) {
  if (visit.warn.length === 0) return null;
  return (
    <section aria-labelledby="visit-dark">
      <h2 id="visit-dark">Warn: it goes dark</h2>
      <ul className={classes.lines}>
        {visit.warn.map((one) => (
          <li key={one.circuit}>
            <strong>{one.circuit}</strong>, about {minutes(one.minutes)}
            <span className="quiet"> {one.places.join(", ")}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Way({ visit }: { visit: Visit }) {
  if (visit.way.length < 2) return null;
  return (
    <details className={folds.fold}>
      <summary>The way: {visit.way.length} places</summary>
      <ol className={classes.way}>
        {visit.way.map((place, index) => (
          // The same place is walked to more than once.
          // biome-ignore lint/suspicious/noArrayIndexKey: nothing is put between
          <li key={index}>{place}</li>
        ))}
      </ol>
    </details>
  );
}

function Notes({ visit, keep }: { visit: Visit; keep: KeepVisit }) {
  const [text, setText] = useState("");
  return (
    <details className={folds.fold} open={visit.notes.length > 0}>
      <summary>Notes{visit.notes.length > 0 && `: ${visit.notes.length}`}</summary>
      <ul className={classes.lines}>
        {visit.notes.map((note) => (
          <li key={note.at}>
            {note.text}
            <span className="quiet">
              {" "}
              {dayAndTimeOf(note.at, visit.practice)}, {note.by}
            </span>
          </li>
        ))}
      </ul>
      <form
        className={classes.note}
        onSubmit={(event) => {
          event.preventDefault();
          if (text.trim() === "") return;
          keep("noted", { what: text }, `Note: ${text}`);
          setText("");
        }}
      >
        <Textarea
          label="Note"
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
          maxLength={400}
          autosize
        />
        <Button type="submit" variant="default">
          Add note
        </Button>
      </form>
    </details>
  );
}
