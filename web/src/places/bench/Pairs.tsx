import type { Practice } from "../../api/client";
import type { MeasuredPair } from "../../parts/Face";
import type { Probes } from "../../reading/probes";
import classes from "./Pairs.module.css";

/** Every pair of the contacts with what was measured; where there are more than three. */
export function Pairs(props: {
  terminals: string[];
  practice: Practice;
  measured: MeasuredPair[];
  probes: Probes;
  onPair: (measuring: string, reference: string) => void;
}) {
  const { terminals, practice, probes } = props;
  const letter = (terminal: string) => practice.letters[terminal] ?? terminal;
  const pairs = terminals.flatMap((one, i) => terminals.slice(i + 1).map((other) => [one, other] as const));
  const has = (pair: { from: string; to: string }, a: string, b: string) =>
    (pair.from === a && pair.to === b) || (pair.from === b && pair.to === a);
  const done = pairs.filter(([a, b]) => props.measured.some((pair) => has(pair, a, b))).length;
  return (
    <>
      <h2 className="zone-title">
        Pairs, {done} of {pairs.length} measured
      </h2>
      <ul className={classes.pairs}>
        {pairs.map(([a, b]) => {
          const seen = props.measured.findLast((pair) => has(pair, a, b));
          const here = has({ from: probes.measuring ?? "", to: probes.reference ?? "" }, a, b);
          return (
            <li key={`${a} ${b}`}>
              <button type="button" data-here={here || undefined} onClick={() => props.onPair(a, b)}>
                <b>
                  {letter(a)}–{letter(b)}
                </b>
                <span className="mono">{seen ? seen.text : "·"}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
