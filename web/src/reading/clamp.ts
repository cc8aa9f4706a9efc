/** How a clamp is closed, and what of a current is written down beside it. */

import type { Entry } from "../api/client";
import type { Probes } from "./probes";
import { typedNumber } from "./typedNumber";

export type Clamp = {
  max: string;
  min: string;
  turns: number;
  atBoard: boolean;
  roundTwo: boolean;
  continuous: boolean;
};

export const UNCLAMPED: Clamp = {
  max: "",
  min: "",
  turns: 1,
  atBoard: false,
  roundTwo: false,
  continuous: false,
};

export function clampOf(entry: Entry): { probes: Probes; clamp: Clamp } {
  return {
    probes: { measuring: entry.from?.replace("BOARD-", "") ?? null, reference: null },
    clamp: {
      max: entry.max === undefined ? "" : String(entry.max),
      min: entry.min === undefined ? "" : String(entry.min),
      turns: Number(entry.turns ?? 1),
      atBoard: entry.from?.startsWith("BOARD-") ?? false,
      roundTwo: entry.to !== undefined,
      continuous: entry.continuous ?? false,
    },
  };
}

/** Where the clamp is closed, and what of it is not as usual. */
export function clamped(
  { clamp, probes, typed }: { clamp: Clamp; probes: Probes; typed: string },
  terminals: string[],
): Partial<Entry> {
  const end = (terminal: string | undefined) => (clamp.atBoard && terminal ? `BOARD-${terminal}` : terminal);
  const other =
    terminals.find((t) => t === "N" && t !== probes.measuring) ??
    terminals.find((t) => t !== probes.measuring);
  return {
    from: end(probes.measuring ?? undefined),
    ...(clamp.roundTwo && { to: end(other) }),
    ...(typed.trim() === "" && { value: undefined }),
    ...(clamp.max.trim() && { max: typedNumber(clamp.max) }),
    ...(clamp.min.trim() && { min: typedNumber(clamp.min) }),
    ...(clamp.turns > 1 && { turns: clamp.turns }),
    ...(clamp.continuous && { continuous: true }),
  };
}
