/** The test of a ring as its form has it: three ends, then every outlet with the ends cross-joined. */

import type { Practice } from "../api/client";
import type { Test } from "./tested";
import { typedNumber } from "./typedNumber";

/** By what is typed for it: an end as `r1`, a reading at an outlet as its id and the pair. */
export type RingTyped = Record<string, string>;

export const ENDS = [
  ["r1", "Line ends, r1"],
  ["rn", "Neutral ends, rn"],
  ["r2", "Protective ends, r2"],
] as const;
const PAIRS = [
  ["r1_rn", "N"],
  ["r1_r2", "PE"],
] as const;

/** The two pairs that are read at an outlet, by the letters on it. */
export const pairsOf = (practice: Practice | undefined): { pair: string; name: string }[] =>
  PAIRS.map(([pair, other]) => {
    const letter = (terminal: string) => practice?.letters[terminal] ?? terminal;
    return { pair, name: `${letter("L")} to ${letter(other)}` };
  });

export const keyOf = (outlet: string, pair: string) => `${outlet} ${pair}`;

/** What an earlier test has, as it would be typed; an end that was not joined as OL. */
export function typedOf(test: Record<string, unknown>): RingTyped {
  const open = (test.over_range ?? []) as string[];
  const outlets = (test.points ?? []) as Record<string, unknown>[];
  const typed = ENDS.map(([end]) => [end, open.includes(end) ? "OL" : String(test[end] ?? "")]);
  const read = outlets.flatMap((outlet) =>
    PAIRS.map(([pair]) => [keyOf(String(outlet.id), pair), String(outlet[pair] ?? "")]),
  );
  return Object.fromEntries([...typed, ...read]);
}

/** The test, once all three ends are typed. OL is an end that is not joined; an outlet with nothing typed is left out. */
export function ringTest(typed: RingTyped, outlets: { id: string; title: string }[]): Test | null {
  const of = (key: string) => typed[key]?.trim() ?? "";
  if (ENDS.some(([end]) => of(end) === "")) return null;
  const open = ENDS.map(([end]) => end).filter((end) => /^ol$/i.test(of(end)));
  const joined = ENDS.map(([end]) => end).filter((end) => !open.includes(end));
  const points = outlets.flatMap(({ id, title }) => {
    const read = PAIRS.map(([pair]) => pair).filter((pair) => of(keyOf(id, pair)) !== "");
    if (read.length === 0) return [];
    const ohms = read.map((pair) => [pair, typedNumber(of(keyOf(id, pair)))]);
    return [{ id, label: title, ...Object.fromEntries(ohms) }];
  });
  return {
    ...Object.fromEntries(joined.map((end) => [end, typedNumber(of(end))])),
    over_range: open,
    points,
  };
}
