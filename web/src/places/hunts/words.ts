/** How a hunt is said where it is short. */

import type { HuntLine } from "../../api/client";

export const STATES: Record<HuntLine["state"], { name: string; sign: string }> = {
  hunting: { name: "Hunting", sign: "◎" },
  found: { name: "Found", sign: "●" },
  clear: { name: "Clear", sign: "○" },
  contradictory: { name: "Contradicts itself", sign: "≠" },
  mended: { name: "Mended", sign: "◐" },
  closed: { name: "Closed", sign: "✓" },
};

export const percent = (share: number) =>
  share === 0 ? "" : share < 0.01 ? "under 1 %" : `${Math.round(100 * share)} %`;

export type Conductor = "L" | "N" | "PE";
export const PAIRS: [Conductor, Conductor][] = [
  ["L", "N"],
  ["L", "PE"],
  ["N", "PE"],
];

/** The pairs to choose from, the usual one first; none where nothing is measured between two. */
export const pairsOf = (usual: Conductor[]): Conductor[][] =>
  usual.length === 0 ? [] : [usual, ...PAIRS.filter((pair) => pair.join() !== usual.join())];
