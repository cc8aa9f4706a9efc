/** What a tester can be set to, and which setting an entry was taken with. */

import type { Entry } from "../api/client";
import { theReference } from "../api/reference";
import type { components } from "../api/schema";

export type TesterFunction = components["schemas"]["FunctionRow"];

/** Those answered by picking or tapping what was seen, not by a number. */
export const isPicked = (f: TesterFunction) => f.entered !== "number";

export function functionNamed(id: string): TesterFunction {
  const found = theReference().functions.find((f) => f.id === id);
  if (!found) throw new Error(`${id} is nothing a tester can be set to`);
  return found;
}

/** Of those that take the entry's quantity the one that fixes most of what it says; none for what no tester is set to. */
export function functionOf(entry: Partial<Entry>): TesterFunction | undefined {
  const said: Record<string, unknown> = { mode: "ac", ...entry };
  const how = entry.sweep ? "walk" : inSteps(entry) ? "steps" : null;
  const fits = (f: TesterFunction) =>
    f.quantity === entry.quantity &&
    f.at_the_board === isAtTheBoard(entry) &&
    (how ? f.entered === how : f.entered !== "walk" && f.entered !== "steps") &&
    Object.entries(f.fixes).every(([key, value]) => said[key] === value);
  return theReference()
    .functions.filter(fits)
    .sort((a, b) => Object.keys(b.fixes).length - Object.keys(a.fixes).length)[0];
}

const isAtTheBoard = ({ from, to }: Partial<Entry>) =>
  from?.startsWith("BOARD-") === true && to?.startsWith("BOARD-") === true;

const inSteps = (entry: Partial<Entry>) => entry.at_least !== undefined || entry.below !== undefined;
