import { Button } from "@mantine/core";
import { Link } from "react-router";
import type { CaseHere } from "../../api/client";
import { type CaseAct, useCase, useDo, useMarks } from "../../api/practice";
import { TwoTapButton } from "../../parts/TwoTapButton";
import { Unplaced } from "../../parts/Unplaced";
import classes from "./CasePanel.module.css";

/** What the customer said, and what is to be done where nothing is to be found out: the first that is seen of a case. */
export function Complaint() {
  const here = useCase().data;
  if (!here) return null;
  return (
    <>
      <blockquote className={classes.complaint}>{here.complaint}</blockquote>
      {here.to_be_made_dead && !here.over && <Task here={here} />}
    </>
  );
}

/** What can be done, what one thinks it still could be, and the way to a conclusion. */
export function CasePanel() {
  const here = useCase().data;
  const act = useDo();
  if (!here) return null;
  const go = (what: CaseAct) => act.mutate(what);
  return (
    <div className={classes.panel}>
      {here.over ? (
        <Over here={here} />
      ) : (
        <>
          <Switching here={here} go={go} />
          <Dangers here={here} />
          {!here.to_be_made_dead && <Marks here={here} go={go} />}
          {!here.to_be_made_dead && <Hints here={here} go={go} busy={act.isPending} />}
        </>
      )}
      <Unplaced error={act.error} />
    </div>
  );
}

type Go = { here: CaseHere; go: (what: CaseAct) => void };

function Over({ here }: { here: CaseHere }) {
  return (
    <div className={classes.over} role="status">
      <strong>{overWith(here)}</strong>
      {here.ended && <p>{here.ended}</p>}
      <Button component={Link} to="/debrief">
        Look back on it
      </Button>
    </div>
  );
}

const overWith = (here: CaseHere) =>
  here.ended ? "The case is over." : here.to_be_made_dead ? "Proved dead, and dead." : "Concluded.";

function Task({ here }: { here: CaseHere }) {
  return (
    <section aria-labelledby="task" className={classes.task}>
      <h2 id="task" className={classes.title}>
        Make it safe to work on
      </h2>
      <p className={classes.how}>
        Off and locked, whatever feeds it. Prove it dead, under Prove dead. Then put your hands on it: that
        ends the case.
      </p>
      <Button component={Link} to={`/prove-dead/new?site=${here.site}&circuit=${here.circuit}`} fullWidth>
        Prove it dead
      </Button>
    </section>
  );
}

/** The circuit's own device and its lock, as they are now; what else feeds it; and hands, which come last. */
function Switching({ here, go }: Go) {
  const off = here.device === "open";
  const ofOnePoint = here.hunt === null && here.outlets.length === 0;
  return (
    <section aria-label="At the board">
      <p className={classes.state}>
        The circuit is <b>{off ? "off" : "on"}</b>
        {here.locked && (
          <>
            {" "}
            and <b>locked</b>
          </>
        )}
        .{here.touched && " Your hands were on it: proved dead, and dead."}
        {here.looked && !here.feed && " Nothing else was found that feeds it."}
      </p>
      <div className={classes.acts}>
        <Button variant="default" onClick={() => go({ doing: off ? "on" : "off" })}>
          {off ? "Switch it on" : "Switch it off"}
        </Button>
        <Button variant="default" onClick={() => go({ doing: here.locked ? "unlocked" : "locked" })}>
          {here.locked ? "Take the lock off" : "Lock it"}
        </Button>
        {!here.looked && ofOnePoint && (
          <Button variant="default" onClick={() => go({ doing: "looked" })}>
            Look for other feeds
          </Button>
        )}
        {here.feed && <OtherFeed feed={here.feed} go={go} />}
        {ofOnePoint && (
          <TwoTapButton
            variant="default"
            asks="Touch the conductors"
            again="Bare hands on them, now?"
            onTapped={() => go({ doing: "touched" })}
          />
        )}
      </div>
    </section>
  );
}

function OtherFeed({ feed, go }: { feed: NonNullable<CaseHere["feed"]>; go: Go["go"] }) {
  const off = feed.device === "open";
  return (
    <>
      <p className={classes.state}>
        It is fed from <b>{feed.name}</b> too: <b>{off ? "off" : "on"}</b>
        {feed.locked && (
          <>
            {" "}
            and <b>locked</b>
          </>
        )}
        .
      </p>
      <Button variant="default" onClick={() => go({ doing: off ? "feed-on" : "feed-off" })}>
        {off ? "Switch that on" : "Switch that off"}
      </Button>
      <Button variant="default" onClick={() => go({ doing: feed.locked ? "feed-unlocked" : "feed-locked" })}>
        {feed.locked ? "Take that lock off" : "Lock that"}
      </Button>
    </>
  );
}

function Dangers({ here }: { here: CaseHere }) {
  const last = here.dangers.at(-1);
  return (
    <div aria-live="assertive">
      {last && (
        <p className={classes.danger}>
          <b>Danger.</b> {last.text}
        </p>
      )}
    </div>
  );
}

/** What one takes to be ruled out by what was read; the answer stays hidden until it is asked for. */
function Marks({ here, go }: Go) {
  const marks = useMarks();
  if (!marks) return null;
  const left = here.possible.filter((one) => !marks.out.has(one.id));
  const asks = here.hunt ? ALONG : here.outlets.length > 0 ? ROUND : OF_A_POINT;
  return (
    <section aria-labelledby="marks">
      <h2 id="marks" className={classes.title}>
        {asks.title}
      </h2>
      <p className={classes.how}>
        {asks.how} {left.length} of {here.possible.length} left.
      </p>
      {!here.hunt && <MarkList here={here} marks={marks} />}
      <TwoTapButton
        variant="filled"
        fullWidth
        asks={asks.concludes(left.map((one) => one.title))}
        again="Conclude? Then it is looked back on"
        onTapped={() => go({ doing: "concluded", conditions: left.map((one) => one.id) })}
      />
    </section>
  );
}

const oneOf = (left: string[]) =>
  left.length === 1 ? `It is: ${left[0]}` : `Conclude: one of the ${left.length} left`;
/** What is asked of whoever goes through a case, by its sort. */
const OF_A_POINT = {
  title: "What can it still be?",
  how: "Tap what your readings rule out.",
  concludes: oneOf,
};
const ALONG = {
  title: "Where can it still be?",
  how: "Mark above what your looks rule out.",
  concludes: oneOf,
};
const ROUND = {
  title: "Which are not right?",
  how: "Tap those that your readings show to be right.",
  concludes: (left: string[]) =>
    left.length === 0
      ? "Conclude: all are right"
      : left.length === 1
        ? `Conclude: ${left[0]} is not right`
        : `Conclude: these ${left.length} are not right`,
};

function MarkList({ here, marks }: { here: CaseHere; marks: NonNullable<ReturnType<typeof useMarks>> }) {
  return (
    <ul className={classes.marks}>
      {here.possible.map((one) => (
        <li key={one.id}>
          <button type="button" aria-pressed={marks.out.has(one.id)} onClick={() => marks.toggle(one.id)}>
            <span aria-hidden>{marks.out.has(one.id) ? "✕" : "○"}</span>
            {marks.out.has(one.id) ? <s>{one.title}</s> : one.title}
          </button>
          <Unplaced error={marks.errorAt(one.id)} />
        </li>
      ))}
    </ul>
  );
}

function Hints({ here, go, busy }: Go & { busy: boolean }) {
  return (
    <section aria-label="Help" className={classes.help}>
      <div className={classes.acts}>
        <Button variant="default" loading={busy} onClick={() => go({ doing: "hint" })}>
          A hint
        </Button>
        {!here.shown && (
          <Button variant="default" onClick={() => go({ doing: "shown" })}>
            {here.hunt ? "Show what is left, and the plan" : "Show what the readings allow"}
          </Button>
        )}
      </div>
      <ol className={classes.hints} aria-live="polite">
        {here.hints.map((hint, number) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: hints are only added
          <li key={number}>{hint}</li>
        ))}
      </ol>
    </section>
  );
}
