import type { Practice } from "../../api/client";
import { wordOf } from "../../api/reference";
import { KeyTable } from "../../parts/KeyTable";

const KEYS_OF_LINES: Record<string, string> = { L1: "x", L2: "y", L3: "z" };

/** A contact's letter, or where it has a number too, for digits go to the reading, one of its own. */
export const keyOf = (terminal: string, practice: Practice) =>
  KEYS_OF_LINES[terminal] ?? (practice.letters[terminal] ?? terminal).toLowerCase();

export function Keys({ practice, terminals }: { practice: Practice; terminals: string[] }) {
  const rows: [string, string][] = [
    ["0–9 . ,", "type the reading"],
    ["Enter", "record it"],
    ...[...terminals, "REF"].map((t): [string, string] => [
      keyOf(t, practice).toUpperCase(),
      `probe at ${practice.letters[t] ?? t}, ${wordOf(practice, t)}: reference first`,
    ]),
    ["Space", "set up the next test"],
    ["U", "take back the last reading"],
    ["?", "this list"],
  ];
  return <KeyTable rows={rows} />;
}
