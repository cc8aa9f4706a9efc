import { Button } from "@mantine/core";
import { memo } from "react";
import type { Bench, Condition, Interpretation, NextTest, Practice, Reading, Tester } from "../../api/client";
import { useLine } from "../../api/line";
import { BesideWiring } from "../../parts/BesideWiring";
import folds from "../../parts/Fold.module.css";
import { LastKnown } from "../../parts/LastKnown";
import { colourOf, lastKnownShape, VerdictShape, WORDS } from "../../parts/VerdictShape";
import { circumstances, ends, entryById, seen, testName } from "../../reading/entry";
import { ICannot, SaidCannot } from "./Cannot";
import classes from "./Conclusion.module.css";
import { NotCounted } from "./NotCounted";
import { UnderLoad } from "./UnderLoad";
import { Walked } from "./Walked";

/** The verdict and what it says. `cutOff`: since when it is only last known; `waiting`: readings that it is without. */
export function Verdict(props: { found: Interpretation; cutOff: number | null; waiting: number }) {
  const { found, cutOff, waiting } = props;
  const lineDown = useLine();
  const shape = lastKnownShape(found.verdict, cutOff !== null || waiting > 0);
  return (
    <>
      <div className={classes.verdict} aria-live="polite">
        <VerdictShape kind={shape} size={46} />
        <strong style={{ color: colourOf(shape) }}>
          {cutOff !== null && "Last known: "}
          {WORDS[found.verdict]}
        </strong>
        <p>{found.summary}</p>
      </div>
      {cutOff !== null && lineDown === null && (
        <p className={classes.cutOff} role="status">
          <LastKnown since={cutOff} /> Treat as live.
        </p>
      )}
      {waiting > 0 && (
        <p className={classes.cutOff}>
          The verdict is without {waiting === 1 ? "a reading" : `${waiting} readings`} not at the server yet.
        </p>
      )}
    </>
  );
}

/**
 * What the verdict rests on: the next test, what stands, what fell and why. `before`: all of it from before the last
 * reading, with which it is being worked out.
 */
export const Conclusion = memo(function Conclusion(props: {
  bench: Bench;
  before: boolean;
  practice: Practice;
  testers: Tester[];
  onSetUp: (test: NextTest) => void;
  onCorrect: (reading: Reading) => void;
}) {
  const { bench, practice, before } = props;
  const found = bench.interpretation;
  const titled = (title: string) => (before ? `${title}, before the last reading` : title);
  const standing = found.conditions.filter((c) => c.standing);
  const faults = standing.filter((c) => !c.fine);
  const sound = standing.filter((c) => c.fine);
  const fallen = found.conditions.filter((c) => !c.standing);
  const untested = found.verdict === "untested";
  return (
    <>
      {before ? (
        <NextToCome />
      ) : found.retake.length > 0 ? (
        <Retake bench={bench} practice={practice} onCorrect={props.onCorrect} />
      ) : (
        <NextTests {...props} tests={found.next_tests} />
      )}
      {!before && found.next_tests_note && <p className={classes.noteText}>{found.next_tests_note}</p>}
      <SaidCannot bench={bench} />
      <BesideWiring found={found} />
      <NotCounted bench={bench} practice={practice} />
      {!untested && faults.length > 0 && (
        <StandingList title={titled("Possible faults")} conditions={faults} practice={practice} />
      )}
      {!untested && sound.length > 0 && (
        <StandingList
          title={titled(faults.length > 0 ? "Or no fault" : "What is left")}
          conditions={sound}
          practice={practice}
        />
      )}
      {!untested && fallen.length > 0 && (
        <details className={`${folds.fold} ${classes.ruledOut}`}>
          <summary>{fallen.length} ruled out, and why</summary>
          <ul>
            {fallen.map((condition) => (
              <Fallen key={condition.id} condition={condition} bench={bench} practice={practice} />
            ))}
          </ul>
        </details>
      )}
      <Judgements found={found} bench={bench} practice={practice} />
      <UnderLoad loads={bench.loads} practice={practice} />
      <Walked sweeps={bench.sweeps} practice={practice} />
    </>
  );
});

/** The verdict in one line, beside the number where a phone's keyboard leaves room for no more. */
export function VerdictInShort(props: { found: Interpretation; lastKnown: boolean }) {
  const shape = lastKnownShape(props.found.verdict, props.lastKnown);
  return (
    <p className={classes.short} aria-hidden>
      <VerdictShape kind={shape} size={28} />
      <strong style={{ color: colourOf(shape) }}>
        {props.lastKnown && "Last known: "}
        {WORDS[props.found.verdict]}
      </strong>
    </p>
  );
}

/** Which line, where one of several is meant: "H2", "H1 or H2", "H1 and H2". */
function linesOf(condition: Condition, practice: Practice): string {
  const named = condition.lines.map((lines) =>
    lines
      .map((l) => practice.letters[l] ?? l)
      .sort()
      .join(" and "),
  );
  return [...new Set(named)].join(" or ");
}

/** Conditions that still fit. One alone is shown whole. */
function StandingList(props: { title: string; conditions: Condition[]; practice: Practice }) {
  const { conditions, practice } = props;
  return (
    <>
      <div className={classes.listHead}>
        <h2 className="zone-title">{props.title}</h2>
        <span>likelihood</span>
      </div>
      <ul className={classes.standing}>
        {conditions.map((condition) => (
          <Standing
            key={condition.id}
            condition={condition}
            practice={practice}
            open={conditions.length === 1}
          />
        ))}
      </ul>
    </>
  );
}

function Standing(props: { condition: Condition; practice: Practice; open: boolean }) {
  const { condition, practice, open } = props;
  return (
    <li>
      <details open={open}>
        <summary>
          <VerdictShape kind={condition.severity} size={20} />
          <span className={classes.conditionTitle}>
            {condition.title}
            {condition.lines.length > 0 && (
              <span className={classes.lines}>: {linesOf(condition, practice)}</span>
            )}
            {condition.strained && <em className={folds.strained}>an alarm contradicts this</em>}
          </span>
          <span className={classes.bar} title="How likely, for order only">
            <i style={{ width: `${Math.max(4, condition.likelihood * 100)}%` }} />
          </span>
        </summary>
        <dl>
          <dt>Severity</dt>
          <dd>{condition.severity}</dd>
          <dt>Symptoms</dt>
          <dd>{condition.notice}</dd>
          <dt>Check</dt>
          <dd>{condition.look_for}</dd>
          <dt>Repair</dt>
          <dd>{condition.mend}</dd>
        </dl>
      </details>
    </li>
  );
}

function Fallen({ condition, bench, practice }: { condition: Condition; bench: Bench; practice: Practice }) {
  const reason = condition.reasons[0];
  const entry = reason && entryById(bench, reason.reading);
  return (
    <li>
      <VerdictShape kind={condition.severity} size={16} />
      <span>
        <s>{condition.title}</s>
        {reason && entry && (
          <span className={folds.reason}>
            {ends(entry, practice)} {circumstances(entry)} would show {reason.text}; it shows {seen(entry)}
          </span>
        )}
      </span>
    </li>
  );
}

function Retake(props: { bench: Bench; practice: Practice; onCorrect: (reading: Reading) => void }) {
  const { bench, practice } = props;
  const readings = bench.readings.filter((r) => bench.interpretation.retake.includes(r.id));
  return (
    <div className={classes.next}>
      <h2>Repeat</h2>
      <p>Without any one of these the rest makes sense. One of these is probably wrong.</p>
      <ul className={classes.retake}>
        {readings.map((r) => (
          <li key={r.id}>
            <Button variant="outline" fullWidth justify="space-between" onClick={() => props.onCorrect(r)}>
              <span>Take {ends(r.entry, practice)} again</span>&nbsp;
              <span className="mono">was {seen(r.entry)}</span>
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function NextToCome() {
  const isCutOff = useLine() !== null;
  return isCutOff ? (
    <div className={classes.next}>
      <h2>Next: comes when the line is back</h2>
      <p>Measure on meanwhile: what you record waits here and is sent then.</p>
    </div>
  ) : (
    <div className={`${classes.next} ${classes.comes}`}>
      <h2>Next: being worked out</h2>
    </div>
  );
}

function NextTests(props: {
  bench: Bench;
  tests: NextTest[];
  practice: Practice;
  testers: Tester[];
  onSetUp: (test: NextTest) => void;
}) {
  const [first, ...others] = props.tests;
  if (!first) return null;
  const name = (test: NextTest) => testName(test, props.practice);
  return (
    <div className={classes.next}>
      <h2>Next: {name(first)}</h2>
      <p>{first.why}</p>
      <div className={classes.go}>
        <Button variant="outline" onClick={() => props.onSetUp(first)}>
          Set up
        </Button>
        <kbd>Space</kbd>
        {others.length > 0 && (
          <details className={classes.others}>
            <summary>or {others.length === 1 ? "another" : `${others.length} others`}</summary>
            {others.map((test) => (
              <button
                key={name(test)}
                type="button"
                className={classes.other}
                onClick={() => props.onSetUp(test)}
              >
                <b>{name(test)}</b>
                <span>{test.why}</span>
              </button>
            ))}
          </details>
        )}
      </div>
      <ICannot bench={props.bench} needs={first.needs} />
    </div>
  );
}

const RESULT_SHAPE: Record<string, string> = { pass: "correct", fail: "defect", borderline: "unconfirmed" };

function Judgements({ found, bench, practice }: { found: Interpretation; bench: Bench; practice: Practice }) {
  if (found.judgements.length === 0) return null;
  const failing = found.judgements.filter((j) => j.result !== "pass").length;
  return (
    <details className={`${folds.fold} ${classes.ruledOut}`}>
      <summary>
        {found.judgements.length} against limits{failing ? `, ${failing} not passed` : ", all passed"}
      </summary>
      <ul>
        {found.judgements.map((j) => {
          const entry = entryById(bench, j.reading);
          return (
            <li key={j.reading + j.limit}>
              <VerdictShape kind={RESULT_SHAPE[j.result] ?? "untested"} size={16} />
              <span>
                <b>{j.result}</b> {entry && `${ends(entry, practice)} ${seen(entry)}`}: {j.text}
                <span className={folds.reason}>{j.source}. Your local code comes first.</span>
              </span>
            </li>
          );
        })}
      </ul>
    </details>
  );
}
