import { Button } from "@mantine/core";
import type { Debrief } from "../../api/client";
import { sharedCase, useDebrief } from "../../api/practice";
import { PRACTICE } from "../../api/sandbox";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { SaveAs } from "../../parts/SaveAs";
import { VerdictShape } from "../../parts/VerdictShape";
import classes from "./Debrief.module.css";

/** A case looked back on: what it was, what was safe, and each reading with what it struck out and a better one would. */
export function DebriefPlace() {
  const debrief = useDebrief();
  if (debrief.isError && !debrief.data)
    return <Failure error={debrief.error} retry={() => debrief.refetch()} />;
  const found = debrief.data;
  return (
    <Page
      title={found?.title ?? "Looking back"}
      under={found?.complaint}
      busy={debrief.isPending}
      actions={
        <Button component="a" href={PRACTICE}>
          Back to practice
        </Button>
      }
    >
      {debrief.isPending && (
        <p role="status">
          What you did is held against what the planner would have done. That can take some seconds.
        </p>
      )}
      {found && (
        <>
          <p className={classes.said}>{found.said}</p>
          {found.notice && (
            <p className={classes.what}>
              Noticed of it: {found.notice}. Repair: {found.mend}.
            </p>
          )}
          <dl className={classes.score}>
            <Line title="Safety" good={found.dangers.length === 0}>
              {found.dangers.length === 0
                ? "No danger met."
                : found.dangers.map((d) => <p key={d.minute + d.danger}>{d.text}</p>)}
            </Line>
            <Line title="Evidence" good={found.conclusion === "followed"}>
              {evidenceOf(found)}
              {found.hints > 0 && ` ${found.hints} ${found.hints === 1 ? "hint" : "hints"}.`}
            </Line>
            <Line title="Economy" good={found.economical}>
              {counted(found)}, {found.minutes} min {found.hunted ? "on the way" : "at the board"}. The
              planner: {found.planner.length}, {found.planner_minutes} min.
            </Line>
            <Line title="Record" good={found.slips === 0}>
              {found.slips === 0
                ? "Everything was written down as it was."
                : `${found.slips} written down otherwise than it was.`}
            </Line>
          </dl>
          <Readings found={found} />
          <Did found={found} />
          <Planner found={found} />
          <SaveAs kind="a case file" name={found.title} fetch={sharedCase} />
        </>
      )}
    </Page>
  );
}

function evidenceOf(found: Debrief) {
  if (found.to_be_made_dead)
    return found.conclusion === "followed"
      ? "Proved dead by a proof that stands."
      : "Nothing proved it dead before hands were on it.";
  const one = found.hunted ? "look" : "reading";
  if (found.round)
    return found.certain_after === null
      ? "Not every outlet was settled by what was read."
      : "Every outlet was settled by what was read.";
  return found.certain_after === null
    ? `The ${one}s never settled it.`
    : `Certain after ${one} ${found.certain_after} of ${found.readings}.`;
}

function counted(found: Debrief) {
  if (found.to_be_made_dead) return `${found.did.length} ${found.did.length === 1 ? "step" : "steps"}`;
  const one = found.hunted ? "look" : "reading";
  return `${found.readings} ${one}${found.readings === 1 ? "" : "s"}`;
}

function Line(props: { title: string; good: boolean; children: React.ReactNode }) {
  return (
    <div>
      <dt>
        <VerdictShape kind={props.good ? "correct" : "defect"} size={22} />
        {props.title}
      </dt>
      <dd>{props.children}</dd>
    </div>
  );
}

/** What happened, in its order, under a heading. */
function Happened<T>(props: {
  id: string;
  title: string;
  all: T[];
  children: (one: T, number: number) => React.ReactNode;
}) {
  return (
    <section aria-labelledby={props.id}>
      <h2 id={props.id}>{props.title}</h2>
      <ol className={classes.line}>
        {props.all.map((one, number) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: they are what they were
          <li key={number}>{props.children(one, number)}</li>
        ))}
      </ol>
    </section>
  );
}

function Readings({ found }: { found: Debrief }) {
  if (found.taken.length === 0) return null;
  return (
    <Happened id="readings" title={found.hunted ? "Look by look" : "Reading by reading"} all={found.taken}>
      {(one, number) => (
        <>
          <p className={classes.reading}>
            <b>{one.what}</b> <span className={found.hunted ? undefined : "mono"}>{one.recorded}</span>
            {one.with && <span className="quiet"> · {one.with}</span>}
            {one.settled && (found.round || number + 1 === found.certain_after) && (
              <b className={classes.certain}> · now it is certain</b>
            )}
          </p>
          {one.slip && <p className={classes.slip}>Written down otherwise: {one.slip}.</p>}
          {!one.counted && <p className={classes.slip}>It did not count: the tester was not fit for it.</p>}
          <Struck titles={one.struck_out} />
          {one.better && (
            <p className="quiet">
              Better then: {one.better}, which can rule out {one.better_rules_out}.
            </p>
          )}
        </>
      )}
    </Happened>
  );
}

function Did({ found }: { found: Debrief }) {
  if (found.did.length === 0) return null;
  return (
    <Happened id="did" title="What you did" all={found.did}>
      {(one) => (
        <p className={classes.reading}>
          {one.said} <span className="quiet">· {one.minute} min</span>
        </p>
      )}
    </Happened>
  );
}

const SHOWN = 3;

function Struck({ titles }: { titles: string[] }) {
  if (titles.length === 0) return <p>Ruled out nothing.</p>;
  if (titles.length <= SHOWN) return <p>Ruled out: {titles.join("; ")}.</p>;
  return (
    <details className={classes.struck}>
      <summary>Ruled out {titles.length}</summary>
      <p>{titles.join("; ")}.</p>
    </details>
  );
}

function Planner({ found }: { found: Debrief }) {
  return (
    <Happened id="planner" title="The planner’s way" all={found.planner}>
      {(turn) => (
        <>
          <p className={classes.reading}>
            <b>{turn.what}</b> <span className={found.hunted ? undefined : "mono"}>{turn.shows}</span>
            {turn.with && <span className="quiet"> · {turn.with}</span>}
          </p>
          {!found.to_be_made_dead && <Struck titles={turn.struck_out} />}
        </>
      )}
    </Happened>
  );
}
