/** The conductors as points and every pair as an edge that closes when it is measured. */

import type { Practice, ProofPair } from "../api/client";
import type { Spot } from "../geometry/face";
import {
  CASING_WIDTH,
  type Ends,
  HEIGHT,
  RADIUS,
  samePair,
  spotsOf,
  valueAt,
  WIDTH,
} from "../geometry/pairs";
import classes from "./PairFigure.module.css";

export function PairFigure(props: {
  practice: Practice;
  terminals: string[];
  pairs: ProofPair[];
  next: Ends | null;
  alive: Ends[];
  onPair: (pair: Ends) => void;
}) {
  const { practice, terminals, pairs, next, alive } = props;
  const spots = spotsOf(terminals);
  const casing = spots.CASE;
  const left = casing && casing.x < 0 ? -CASING_WIDTH : 0;
  const width = casing ? WIDTH + CASING_WIDTH : WIDTH;
  const conductors = terminals.filter((t) => t !== "CASE").length;
  const letter = (terminal: string) => practice.letters[terminal] ?? terminal;
  const isNext = (pair: Ends) => next !== null && samePair(pair, next);
  const drawn = [...pairs].sort((a, b) => Number(isNext(a)) - Number(isNext(b)));
  return (
    <svg viewBox={`${left} 0 ${width} ${HEIGHT}`} className={classes.figure}>
      <title>{`${pairs.filter((p) => p.done).length} of ${pairs.length} pairs done`}</title>
      {drawn.map((pair) => {
        const a = spots[pair.from];
        const b = spots[pair.to];
        if (!a || !b) return null;
        const state = alive.some((p) => samePair(p, pair))
          ? "alive"
          : pair.unexplained
            ? "unexplained"
            : pair.done
              ? "done"
              : "open";
        return (
          <Edge
            key={`${pair.from} ${pair.to}`}
            a={a}
            b={b}
            state={state}
            next={isNext(pair)}
            at={valueAt(a, b, conductors)}
            text={shown(pair)}
            name={`${letter(pair.from)} to ${letter(pair.to)}, ${spoken(pair, state)}`}
            onPick={() => props.onPair({ from: pair.from, to: pair.to })}
          />
        );
      })}
      {Object.entries(spots).map(([terminal, spot]) => {
        const role =
          next?.to === terminal ? classes.reference : next?.from === terminal ? classes.measuring : "";
        return (
          <g key={terminal} className={`${classes.node} ${role}`}>
            {terminal === "CASE" ? (
              <rect x={spot.x - RADIUS} y={spot.y - RADIUS} width={2 * RADIUS} height={2 * RADIUS} />
            ) : (
              <circle cx={spot.x} cy={spot.y} r={RADIUS} />
            )}
            <path d={`M${spot.x - 16} ${spot.y + 19}h32`} className={classes.sheath} />
            <path
              d={`M${spot.x - 14} ${spot.y + 19}h28`}
              stroke={`var(--ep-insulation-${practice.colours[terminal] ?? "bare"})`}
              className={classes.insulation}
            />
            <text x={spot.x} y={spot.y + 7}>
              {letter(terminal)}
            </text>
            {role && (
              <text x={spot.x} y={spot.y < HEIGHT / 2 ? spot.y - 42 : spot.y + 54} className={classes.order}>
                {next?.to === terminal ? "first" : "second"}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

function Edge(props: {
  a: Spot;
  b: Spot;
  state: "open" | "done" | "unexplained" | "alive";
  next: boolean;
  at: Spot;
  text: string;
  name: string;
  onPick: () => void;
}) {
  const { a, b, state, next, text } = props;
  const { x, y } = props.at;
  const line = `M${a.x} ${a.y}L${b.x} ${b.y}`;
  return (
    // biome-ignore lint/a11y/useSemanticElements: an SVG edge cannot be a button element
    <g
      role="button"
      tabIndex={0}
      aria-label={props.name}
      className={`${classes.edge} ${classes[state]} ${next ? classes.next : ""}`}
      onClick={props.onPick}
      onKeyDown={(event) => {
        if (event.key !== "Enter" && event.key !== " ") return;
        event.preventDefault();
        props.onPick();
      }}
    >
      <path d={line} className={classes.target} />
      <path d={line} className={classes.line} />
      {text && (
        <>
          <rect x={x - 30} y={y - 15} width="60" height="30" className={classes.ground} />
          <text x={x} y={y + 7}>
            {text}
          </text>
        </>
      )}
    </g>
  );
}

const shown = (pair: ProofPair) =>
  pair.shows_v !== null ? pair.shows_v.toFixed(1) : pair.below_v !== null ? `<${pair.below_v}` : "";

function spoken(pair: ProofPair, state: string): string {
  const value = shown(pair);
  const seen = value ? `${value} volts` : "";
  if (state === "done") return `${seen}, done`;
  if (state === "alive") return `${seen}, live`;
  if (state === "unexplained") return `${seen}, not explained`;
  return value ? `${seen}, does not count, test it` : "not tested";
}
