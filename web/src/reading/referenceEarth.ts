/** Which earth was brought along as the reference: its kind and, where it takes two that agree, which one. */

import type { Entry, Practice } from "../api/client";

export type ReferenceEarth = { kind: NonNullable<Entry["reference"]>; at: string };

export const A_ROD: ReferenceEarth = { kind: "rod", at: "" };

export const isOnReference = (...ends: (string | null | undefined)[]) => ends.includes("REF");

export const kindOf = (earth: ReferenceEarth, practice: Practice) =>
  practice.reference_earths.find((row) => row.id === earth.kind);

export const earthIn = (entry: Entry): ReferenceEarth => ({
  kind: entry.reference ?? A_ROD.kind,
  at: entry.reference_at ?? "",
});

/** The entry, with what the reference was where a probe was on one. */
export function withEarth(entry: Entry, { kind, at }: ReferenceEarth): Entry {
  if (!isOnReference(entry.from, entry.to)) return entry;
  return { ...entry, reference: kind, ...(at.trim() && { reference_at: at.trim() }) };
}

/** "Another circuit's socket, hall"; empty where nobody said or there is none. */
export function earthSaid(entry: Entry, practice: Practice): string {
  if (entry.reference == null) return "";
  return [kindOf(earthIn(entry), practice)?.name, entry.reference_at].filter(Boolean).join(", ");
}
