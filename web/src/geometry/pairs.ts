/** Where conductors stand so that every two of them can be joined by an edge, and where an edge's value stands. */

import type { Spot } from "./face";

export type Ends = { from: string; to: string };

export const WIDTH = 520;
export const HEIGHT = 440;
export const RADIUS = 34;

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
export const CASING_WIDTH = 120;

export const samePair = (one: Ends, other: Ends) =>
  (one.from === other.from && one.to === other.to) || (one.from === other.to && one.to === other.from);

export function spotsOf(terminals: string[]): Record<string, Spot> {
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

/** Where the value of an edge stands, of so many conductors. */
export function valueAt(a: Spot, b: Spot, conductors: number): Spot {
  const at = a.x !== b.x && a.y !== b.y ? (DIAGONAL_AT[conductors] ?? 0.5) : 0.5;
  return { x: a.x + (b.x - a.x) * at, y: a.y + (b.y - a.y) * at };
}
