import type { Interpretation } from "../api/client";
import classes from "./BesideWiring.module.css";
import { VerdictShape } from "./VerdictShape";

const STATE_SHAPE: Record<string, string> = { pass: "correct", fail: "hazard", borderline: "unconfirmed" };
const STATE_WORD: Record<string, string> = {
  pass: "passed",
  fail: "failed",
  borderline: "borderline",
  "not-tested": "not tested",
  "not-present": "none recorded",
};

type Answers = Pick<Interpretation, "insulation" | "protection">;

const questionsOf = (found: Answers) => [
  { name: "Insulation", ...found.insulation },
  { name: "Protection", ...found.protection },
];

/** The two questions that the wiring's verdict leaves open, with why: does it insulate, does its device trip. */
export function BesideWiring({ found }: { found: Answers }) {
  return (
    <ul className={classes.atLength} aria-label="Beside the wiring">
      {questionsOf(found).map(({ name, state, why }) => (
        <li key={name}>
          <VerdictShape kind={STATE_SHAPE[state] ?? "untested"} size={16} />
          <span>
            <b>{name}</b> {why}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** The same on a point's line, in two words each. */
export function BesideWiringInShort({ found }: { found: Answers }) {
  return (
    <span className={classes.short}>
      {questionsOf(found).map(({ name, state }) => (
        <span key={name}>
          <VerdictShape kind={STATE_SHAPE[state] ?? "untested"} size={14} />
          {name} {STATE_WORD[state]}
        </span>
      ))}
    </span>
  );
}
