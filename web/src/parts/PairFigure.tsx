/** The conductors as points and every pair as an edge that closes when it is measured. */

import type { Practice, ProofPair } from "../api/client";
import classes from "./PairFigure.module.css";

type Spot = { x: number; y: number };
export type Ends = { from: string; to: string };

const WIDTH = 520;
const HEIGHT = 440;
const RADIUS = 34;

/** Corners by how many conductors there are, lines above. A casing hangs on the earth, outside, so that its edge
 * passes no other conductor. */
const CORNERS: Record<number, Spot[]> = {
  2: [
    { x: 130, y: 200 },
    { x: 390, y: 200 },
  ],
  3: [
    { x: 260, y: 84 },
    { x: 70, y: 344 },
    { x: 450, y: 344 },
  ],
  4: [
    { x: 66, y: 84 },
    { x: 454, y: 84 },
    { x: 66, y: 344 },
    { x: 454, y: 344 },
  ],
  5: [
    { x: 260, y: 78 },
    { x: 470, y: 192 },
    { x: 398, y: 372 },
    { x: 122, y: 372 },
    { x: 50, y: 192 },
  ],
};
const CASING_WIDTH = 120;

export function PairFigure(props: {
  practice: Practice;
  terminals: string[];
  pairs: ProofPair[];
  next: Ends | null;
  alive: Ends[];
  onPair: (pair: Ends) => void;
}) {
  const { practice, terminals, pairs, next, alive } = props;
  const spots = placed(terminals);
  const casing = spots.CASE;
  const left = casing && casing.x < 0 ? -CASING_WIDTH : 0;
  const width = casing ? WIDTH + CASING_WIDTH : WIDTH;
  const letter = (terminal: string) => practice.letters[terminal] ?? terminal;
  const diagonalAt = DIAGONAL_AT[terminals.filter((t) => t !== "CASE").length] ?? 0.5;
  const isNext = (pair: Ends) => next !== null && same(pair, next);
  const drawn = [...pairs].sort((a, b) => Number(isNext(a)) - Number(isNext(b)));
  return (
    <svg viewBox={`${left} 0 ${width} ${HEIGHT}`} className={classes.figure}>
      <title>{`${pairs.filter((p) => p.done).length} of ${pairs.length} pairs done`}</title>
      {drawn.map((pair) => {
        const a = spots[pair.from];
        const b = spots[pair.to];
        if (!a || !b) return null;
        const state = alive.some((p) => same(p, pair))
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
            diagonalAt={diagonalAt}
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

export const same = (one: Ends, other: Ends) =>
  (one.from === other.from && one.to === other.to) || (one.from === other.to && one.to === other.from);

function placed(terminals: string[]): Record<string, Spot> {
  const conductors = terminals.filter((t) => t !== "CASE");
  const corners = CORNERS[conductors.length] ?? [];
  const spots: Record<string, Spot> = {};
  conductors.forEach((terminal, i) => {
    const corner = corners[i];
    if (corner) spots[terminal] = corner;
  });
  if (terminals.includes("CASE")) {
    const earth = spots.PE ?? corners.at(-1);
    if (earth) spots.CASE = { x: earth.x + (earth.x > WIDTH / 2 ? 1 : -1) * CASING_WIDTH, y: earth.y };
  }
  return spots;
}

/** Diagonals of a square cross in the middle, so a value stands nearer one end; those of a pentagon do not. */
const DIAGONAL_AT: Record<number, number> = { 4: 0.36 };

function Edge(props: {
  a: Spot;
  b: Spot;
  state: "open" | "done" | "unexplained" | "alive";
  next: boolean;
  diagonalAt: number;
  text: string;
  name: string;
  onPick: () => void;
}) {
  const { a, b, state, next, text } = props;
  const at = a.x !== b.x && a.y !== b.y ? props.diagonalAt : 0.5;
  const x = a.x + (b.x - a.x) * at;
  const y = a.y + (b.y - a.y) * at;
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
