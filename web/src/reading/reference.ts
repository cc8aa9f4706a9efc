/** The tables of the trade as the server gives them: loaded before any place is shown, and the same from then on. */

import type { Reference } from "../api/client";

let held: Reference | null = null;

/** Keeps what was loaded, for all that shows a reading or a point. */
export function holdReference(reference: Reference): void {
  held = reference;
}

export function theReference(): Reference {
  if (!held) throw new Error("the reference is loaded before any place is shown");
  return held;
}
