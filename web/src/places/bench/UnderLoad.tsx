import type { Loads, Practice } from "../../api/client";
import folds from "../../parts/Fold.module.css";
import { ResultBar } from "../../parts/ResultBar";
import { VerdictShape } from "../../parts/VerdictShape";
import classes from "./UnderLoad.module.css";

const SHAPES: Record<string, string> = {
  pass: "correct",
  note: "safe",
  borderline: "unconfirmed",
  fail: "defect",
};
type Resistance = Loads["loops"][number] | Loads["loops"][number]["parts"][number];

/** What is drawn against the device, and what known loads say of the loop and its joints. */
export function UnderLoad({ loads, practice }: { loads: Loads; practice: Practice }) {
  if (loads.draws.length + loads.loops.length === 0) return null;
  const letter = (end: string) => practice.letters[end] ?? end;
  return (
    <section className={classes.load} aria-labelledby="under-load">
      <h2 className="zone-title" id="under-load">
        Under load
      </h2>
      {loads.draws.map((draw) => (
        <p key={draw.reading} className={classes.draw}>
          <VerdictShape kind={SHAPES[draw.outcome?.result ?? ""] ?? "untested"} size={18} />
          <span>
            {draw.conductor && <b>{letter(draw.conductor)} </b>}
            {draw.text}
            {draw.outcome?.limit && <span className={folds.reason}>{draw.outcome.limit.source}</span>}
          </span>
        </p>
      ))}
      {loads.loops.map((loop) => (
        <div key={loop.reading}>
          <p className={classes.draw}>
            <VerdictShape kind={loop.poor ? "defect" : "correct"} size={18} />
            <span>{loop.text}</span>
          </p>
          <table className={classes.parts}>
            <caption className="visually-hidden">Resistance of the loop and of its conductors, ohms</caption>
            <tbody>
              <Ohms name={`Loop ${loop.pair.map(letter).join("–")}`} of={loop} />
              {loop.parts.map((part) => (
                <Ohms key={part.terminal} name={letter(part.terminal)} of={part} />
              ))}
            </tbody>
          </table>
          <p className={classes.key}>Ruled: what a sound one here has. Drop limit: {loop.limit.source}.</p>
        </div>
      ))}
    </section>
  );
}

function Ohms({ name, of }: { name: string; of: Resistance }) {
  const span = (ends: number[]) => ends.map((end) => end.toFixed(2)).join(" to ");
  return (
    <tr data-poor={of.poor || undefined}>
      <th scope="row">{name}</th>
      <td className={classes.bar}>
        <ResultBar bar={of.bar} fails={of.poor} />
      </td>
      <td>
        <span className={`mono ${classes.ohms}`}>{span(of.ohm)} Ω</span>
        <span className={classes.sound}>
          {of.poor ? "poor; " : ""}sound {span(of.expected)}
        </span>
      </td>
    </tr>
  );
}
