/** The tables of the trade as the server gives them: loaded before any place is shown, and the same from then on. */

import type { Practice, Reference } from "./client";

let held: Reference | null = null;

/** Keeps what was loaded, for all that shows a reading or a point. */
export function holdReference(reference: Reference): void {
  held = reference;
}

/** What a practice calls something, with the code's own term where it has none of its own. */
export const wordOf = (practice: Practice, term: string): string => practice.words[term] ?? term;

export function theReference(): Reference {
  if (!held) throw new Error("the reference is loaded before any place is shown");
  return held;
}
