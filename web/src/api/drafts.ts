/**
 * What is half typed, kept by its place on this device: a call comes in, the browser goes, and it is there again. Gone when
 * it was recorded, when the field is emptied, and with whoever signs out.
 */

import { keptAs } from "./sandbox";

const DRAFT = keptAs(".draft ");

export function draftOf<T>(place: string): T | null {
  try {
    const kept = localStorage.getItem(DRAFT + place);
    return kept === null ? null : (JSON.parse(kept) as T);
  } catch {
    return null;
  }
}

/** Null takes it away. Where the browser keeps nothing, nothing comes back. */
export function keepDraft(place: string, draft: unknown) {
  try {
    if (draft === null) localStorage.removeItem(DRAFT + place);
    else localStorage.setItem(DRAFT + place, JSON.stringify(draft));
  } catch {
    // Full or refused: what is typed is still in its field.
  }
}

export function forgetDrafts() {
  const kept = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? "");
  for (const key of kept.filter((key) => key.startsWith(DRAFT))) localStorage.removeItem(key);
}
