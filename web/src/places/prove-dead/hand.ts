/** What is in the hand during a proof: tester, function, range, and the number typed so far. */

import { useState } from "react";
import type { EventEntry, Proof, ProofTester } from "../../api/client";
import type { Ends } from "../../geometry/pairs";
import { typedNumber } from "../../reading/typedNumber";

export type Hand = {
  tester: string | null;
  leads: string | null;
  adapters: string[];
  /** Function and range of a meter: asked anew at each proof, for a wrong one reads zero on a live conductor. */
  mode: "ac" | "dc" | null;
  range: string;
  against: "proving-unit" | "known-live";
  lowImpedance: boolean;
  typed: string;
  note: string;
};

/**
 * A proof opened again half-way goes on with what was `begun` to be typed, or else with the
 * tester, function and range it was last proved with; no tester is taken that nobody chose.
 */
export function useHand(proof: Proof, begun: Hand | undefined) {
  const [hand, set] = useState<Hand>(() => {
    if (begun) return begun;
    const last = proof.events.filter((e) => e.type === "proved").at(-1);
    const { mode, range } = (last?.entry ?? {}) as { mode?: "ac" | "dc"; range?: string };
    return {
      tester: proof.state.next.tester,
      leads: null,
      adapters: [],
      mode: mode ?? null,
      range: range ?? "",
      against: "proving-unit",
      lowImpedance: false,
      typed: "",
      note: "",
    };
  });
  return [hand, (change: Partial<Hand>) => set((was) => ({ ...was, ...change }))] as const;
}

/** Whether it is said how the tester is set; a tester that is not set needs nothing said. */
export const isSet = (hand: Hand, tester: ProofTester | undefined) =>
  !tester?.sets || (hand.mode !== null && hand.range.trim() !== "");

/** The tester's id without the number a changed state of it carries in the log. */
export const testerIn = (proof: Proof, hand: Hand): ProofTester | undefined =>
  proof.testers.find((t) => t.id === hand.tester?.split("/")[0]);

/** How the tester was set, for the events where it matters. */
const setting = (hand: Hand, tester: ProofTester | undefined) =>
  tester?.sets ? { mode: hand.mode ?? undefined, range: hand.range.trim() } : {};

export type Seen = { at_least?: number; below?: number };

export function provedEntry(hand: Hand, tester: ProofTester | undefined, seen?: Seen): EventEntry {
  const shown = seen ?? { shows_v: typedNumber(hand.typed) };
  return { type: "proved", against: hand.against, ...setting(hand, tester), ...shown };
}

export function testedEntry(
  hand: Hand,
  tester: ProofTester | undefined,
  pair: Ends,
  seen?: Seen,
): EventEntry {
  const shown = seen ?? { shows_v: typedNumber(hand.typed) };
  const entry: EventEntry = {
    type: "tested",
    from: pair.from as EventEntry["from"],
    to: pair.to as EventEntry["to"],
    ...setting(hand, tester),
    input: hand.lowImpedance ? "low-z" : "high-z",
    ...shown,
  };
  if (hand.note.trim()) entry.note = hand.note.trim();
  return entry;
}
