import { wordOf } from "../api/reference";
/** A reading as the survey format writes it, and how it is shown. Shapes and words only, no judgement. */

import type { Bench, Entry, NextTest, Practice, Quantity } from "../api/client";
import { functionOf } from "./functions";

export const UNIT_SIGNS: Record<string, string> = { ohm: "Ω", kohm: "kΩ", Mohm: "MΩ" };

export const sign = (unit: string) => UNIT_SIGNS[unit] ?? unit;

/** A reading of the point, or a dead test of its circuit's sheet. */
export const entryById = (bench: Bench, id: string): Entry | undefined =>
  [...bench.readings, ...bench.dead_tests].find((r) => r.id === id)?.entry;

/** At least one decimal for volts, as the display has it. */
const written = (value: unknown, unit: string) =>
  typeof value === "number" && unit === "V" && Number.isInteger(value) ? value.toFixed(1) : `${value}`;

/** What was seen, with its unit. */
export function seen(entry: Entry): string {
  if (entry.sweep) return `${entry.sweep.length} places, ${entry.sweep.filter((s) => s.alarm).length} sound`;
  const taken = functionOf(entry);
  if (taken?.entered === "pick")
    return taken.answers.find((answer) => answer.value === entry.value)?.label ?? "";
  if (taken?.entered === "lamps") return lamps(entry.value as Record<string, boolean>);
  if (taken?.extremes) return drawn(entry);
  const unit = sign(entry.unit ?? taken?.units[0] ?? "");
  if (entry.over_range) return `over range ${unit}`.trim();
  if (entry.value !== undefined) return `${written(entry.value, unit)} ${unit}`;
  if (entry.below === undefined) return `${entry.at_least} ${unit} or more`;
  return entry.at_least === undefined
    ? `under ${entry.below} ${unit}`
    : `${entry.at_least} to ${entry.below} ${unit}`;
}

function lamps(value: Record<string, boolean>): string {
  const lit = Object.entries(value).filter(([, on]) => on);
  return lit.length ? `lit ${lit.map(([lamp]) => lamp).join(", ")}` : "all dark";
}

/** "9.5 A, 3.1 to 41 A". */
function drawn(entry: Entry): string {
  const unit = entry.unit ?? "A";
  const now = entry.value === undefined ? "" : `${entry.value} ${unit}`;
  if (entry.max === undefined && entry.min === undefined) return now;
  const span = [entry.min, entry.max].filter((v) => v !== undefined).join(" to ");
  return [now, `${entry.min === undefined ? "up to " : ""}${span} ${unit}`].filter(Boolean).join(", ");
}

export function ends(
  entry: { quantity?: Quantity; from?: string | null; to?: string | null },
  practice: Practice,
): string {
  const taken = entry.quantity === undefined ? undefined : functionOf({ quantity: entry.quantity });
  if (taken?.probes === "none") return taken.title;
  const letter = (terminal: string | null | undefined) =>
    terminal ? (practice.letters[terminal] ?? terminal) : "";
  if (!entry.to) return letter(entry.from);
  const atBoard = [entry.from, entry.to].every((end) => end?.startsWith("BOARD-"));
  const from = atBoard ? letter(entry.from?.replace("BOARD-", "")) : letter(entry.from);
  return `${from} to ${letter(entry.to)}`;
}

/** The circumstances that are not as they are found. */
export function circumstances(entry: Entry | (NextTest["circumstance"] & { quantity?: Quantity })): string {
  const parts = [];
  const dead = entry.quantity !== undefined && functionOf({ quantity: entry.quantity })?.dead;
  if (entry.load_here_a != null) parts.push(`${entry.load_here_a} A load here`);
  if (entry.load_elsewhere_a != null) parts.push(`${entry.load_elsewhere_a} A load elsewhere`);
  if ("load_between" in entry && entry.load_between)
    parts.push(`between ${entry.load_between.join(" and ")}`);
  if (entry.nothing_else_on) parts.push(dead ? "everything unplugged" : "nothing else on");
  if ("turns" in entry && entry.turns) parts.push(`${entry.turns} turns through the clamp`);
  if ("continuous" in entry && entry.continuous) parts.push("three hours and more");
  if ("ms" in entry && entry.ms != null) parts.push(`after ${entry.ms} ms`);
  if (entry.test_ma != null) parts.push(`${entry.test_ma} mA`);
  if (entry.device === "open") parts.push("device open");
  if (entry.neutral === "lifted") parts.push("neutral disconnected at the board");
  if (entry.far_ends === "joined") parts.push("joined at the board");
  if (entry.input === "low-z") parts.push("low impedance");
  if ("mode" in entry && entry.mode === "dc") parts.push("DC");
  return parts.join(", ");
}

/** A reading that is to be taken, in words: "Resistance N to G, device open". What is not in volts says what it is. */
export function testName(
  test: Pick<NextTest, "quantity" | "from" | "to" | "circumstance">,
  practice: Practice,
): string {
  const taken = functionOf({ quantity: test.quantity });
  const what = taken && taken.unit !== "V" && taken.probes !== "none" ? `${taken.title} ` : "";
  const where =
    test.to === "REF"
      ? `${ends({ from: test.from }, practice)} to ${wordOf(practice, "REF")}`
      : ends(test, practice);
  const how = circumstances({ ...test.circumstance, quantity: test.quantity });
  return `${what}${where}${how ? `, ${how}` : ""}`;
}

/** A voltage between two contacts without a known load, whether or not anything else was on. */
export function isAsIs(entry: Entry): boolean {
  const taken = functionOf(entry);
  const { nothing_else_on: _, ...rest } = entry;
  return circumstances(rest) === "" && taken?.unit === "V" && taken.probes === "two";
}
