/** A reading as the survey format writes it, and how it is shown. Shapes and words only, no judgement. */

import type { Bench, NextTest, Practice, Reading } from "../../api/client";

export type Entry = {
  quantity: string;
  mode?: string;
  from?: string;
  to?: string;
  value?: unknown;
  at_least?: unknown;
  below?: unknown;
  over_range?: boolean;
  unit?: string;
  input?: string;
  load_here_a?: unknown;
  load_elsewhere_a?: unknown;
  load_between?: string[];
  device?: string;
  neutral?: string;
  test_ma?: number;
  max?: unknown;
  min?: unknown;
  turns?: number;
  continuous?: boolean;
  sweep?: Station[];
  source?: string;
};

/** Where a detector was held on its walk, metres from where that began. */
export type Station = { m: number; alarm: boolean };

export type FunctionId =
  | "volts"
  | "low-z"
  | "dc"
  | "ohms"
  | "steps"
  | "presence"
  | "sweep"
  | "lamps"
  | "trip"
  | "sequence"
  | "amps"
  | "hertz";

export const FUNCTIONS: Record<FunctionId, { name: string; quantity: string; units: string[] }> = {
  volts: { name: "AC volts", quantity: "voltage", units: ["V", "mV", "kV"] },
  "low-z": { name: "AC volts, low impedance", quantity: "voltage", units: ["V", "mV", "kV"] },
  dc: { name: "DC volts", quantity: "voltage", units: ["V", "mV", "kV"] },
  ohms: { name: "Ohms, device open", quantity: "resistance", units: ["ohm", "kohm", "Mohm"] },
  steps: { name: "Volt steps", quantity: "voltage", units: ["V"] },
  presence: { name: "Presence", quantity: "presence", units: [] },
  sweep: { name: "Presence, walked along", quantity: "presence", units: [] },
  lamps: { name: "Lamps as seen", quantity: "lamps", units: [] },
  trip: { name: "Trip button", quantity: "trip", units: [] },
  sequence: { name: "Phase sequence", quantity: "sequence", units: [] },
  amps: { name: "Current, clamped", quantity: "current", units: ["A", "mA"] },
  hertz: { name: "Frequency", quantity: "frequency", units: ["Hz"] },
};

/** Those that are answered by picking what was seen, not by a number. */
export const PICKED: FunctionId[] = ["presence", "sweep", "steps", "lamps", "trip", "sequence"];
/** Those that are put to no pair of contacts. */
export const WITHOUT_PROBES: FunctionId[] = ["lamps", "trip", "sequence", "hertz"];
/** Those that are at one place only. */
export const ONE_PLACE: FunctionId[] = ["presence", "sweep", "amps"];

const FUNCTIONS_OF: Record<string, FunctionId[]> = {
  multimeter: ["volts", "low-z", "ohms", "dc", "amps", "hertz"],
  clamp: ["amps", "volts", "ohms", "hertz"],
  "two-pole": ["steps", "volts", "trip", "sequence"],
  "lamp-tester": ["lamps"],
  "non-contact": ["presence", "sweep"],
  "low-ohm": ["ohms"],
  "insulation-tester": ["volts", "ohms"],
  "digital-plug-tester": ["volts", "lamps", "trip"],
};

type Doing = { kind: string; entry: Record<string, unknown> };

/** What a tester does here; lamps are made for one line, only three lines have a sequence, not all have a button. */
export function functionsOf(tester: Doing | undefined, terminals: string[]): FunctionId[] {
  const lines = terminals.filter((t) => t.startsWith("L")).length;
  const able: Partial<Record<FunctionId, boolean>> = {
    lamps: lines === 1,
    sequence: lines === 3,
    trip: tester?.entry.test_ma != null,
  };
  return (FUNCTIONS_OF[tester?.kind ?? "multimeter"] ?? ["volts"]).filter((f) => able[f] ?? true);
}

export const UNIT_SIGNS: Record<string, string> = { ohm: "Ω", kohm: "kΩ", Mohm: "MΩ" };

export const sign = (unit: string) => UNIT_SIGNS[unit] ?? unit;

export const entryOf = (reading: Reading) => reading.entry as Entry;

/** A reading of the point, or a dead test of its circuit's sheet. */
export const entryById = (bench: Bench, id: string) =>
  [...bench.readings, ...bench.dead_tests].find((r) => r.id === id)?.entry as Entry | undefined;

export function functionOf(entry: Entry): FunctionId {
  if (entry.sweep) return "sweep";
  const named = Object.keys(FUNCTIONS).find((f) => FUNCTIONS[f as FunctionId].quantity === entry.quantity);
  if (!["voltage", "resistance", "insulation"].includes(entry.quantity)) return named as FunctionId;
  if (entry.quantity === "resistance") return "ohms";
  if (entry.at_least !== undefined || entry.below !== undefined) return "steps";
  if (entry.mode === "dc") return "dc";
  return entry.input === "low-z" ? "low-z" : "volts";
}

/** At least one decimal for volts, as the display has it. */
const written = (value: unknown, unit: string) =>
  typeof value === "number" && unit === "V" && Number.isInteger(value) ? value.toFixed(1) : `${value}`;

/** What was seen, with its unit. */
export function seen(entry: Entry): string {
  if (entry.sweep) return `${entry.sweep.length} places, ${entry.sweep.filter((s) => s.alarm).length} sound`;
  if (entry.quantity === "presence") return entry.value ? "alarm" : "silent";
  if (entry.quantity === "trip") return entry.value ? "tripped" : "no trip";
  if (entry.quantity === "sequence") return entry.value ? "L1–L2–L3" : "reversed";
  if (entry.quantity === "lamps") {
    const lit = Object.entries(entry.value as Record<string, boolean>).filter(([, on]) => on);
    return lit.length ? `lit ${lit.map(([lamp]) => lamp).join(", ")}` : "all dark";
  }
  if (entry.quantity === "current") return drawn(entry);
  const unit = sign(entry.unit ?? FUNCTIONS[functionOf(entry)].units[0] ?? "");
  if (entry.over_range) return `over range ${unit}`.trim();
  if (entry.value !== undefined) return `${written(entry.value, unit)} ${unit}`;
  if (entry.below === undefined) return `${entry.at_least} ${unit} or more`;
  return entry.at_least === undefined
    ? `under ${entry.below} ${unit}`
    : `${entry.at_least} to ${entry.below} ${unit}`;
}

/** "9.5 A, 3.1 to 41 A". */
function drawn(entry: Entry): string {
  const unit = entry.unit ?? "A";
  const now = entry.value === undefined ? "" : `${entry.value} ${unit}`;
  if (entry.max === undefined && entry.min === undefined) return now;
  const span = [entry.min, entry.max].filter((v) => v !== undefined).join(" to ");
  return [now, `${entry.min === undefined ? "up to " : ""}${span} ${unit}`].filter(Boolean).join(", ");
}

const WITHOUT_ENDS: Record<string, string> = {
  lamps: "Lamps",
  trip: "Trip test",
  sequence: "Phase sequence",
  frequency: "Frequency",
};

export function ends(
  entry: { quantity?: string; from?: string | null; to?: string | null },
  practice: Practice,
): string {
  const named = WITHOUT_ENDS[entry.quantity ?? ""];
  if (named) return named;
  const letter = (terminal: string | null | undefined) =>
    terminal ? (practice.letters[terminal] ?? terminal) : "";
  return entry.to ? `${letter(entry.from)} to ${letter(entry.to)}` : letter(entry.from);
}

/** The circumstances that are not as they are found. */
export function circumstances(entry: Entry | (NextTest["circumstance"] & { quantity?: string })): string {
  const parts = [];
  if (entry.load_here_a != null) parts.push(`${entry.load_here_a} A load here`);
  if (entry.load_elsewhere_a != null) parts.push(`${entry.load_elsewhere_a} A load elsewhere`);
  if ("load_between" in entry && entry.load_between)
    parts.push(`between ${entry.load_between.join(" and ")}`);
  if ("turns" in entry && entry.turns) parts.push(`${entry.turns} turns through the clamp`);
  if ("continuous" in entry && entry.continuous) parts.push("three hours and more");
  if (entry.test_ma != null) parts.push(`${entry.test_ma} mA`);
  if (entry.device === "open") parts.push("device open");
  if (entry.neutral === "lifted") parts.push("neutral off its bar");
  if (entry.input === "low-z") parts.push("low impedance");
  if ("mode" in entry && entry.mode === "dc") parts.push("DC");
  return parts.join(", ");
}

/** What is not in volts says so. */
const UNIT_WORDS: Record<string, string> = { resistance: "Ohms ", current: "Amperes " };

/** A reading that is to be taken, in words: "Ohms N to G, device open". */
export function testName(
  test: Pick<NextTest, "quantity" | "from" | "to" | "circumstance">,
  practice: Practice,
): string {
  const unit = UNIT_WORDS[test.quantity] ?? "";
  const where =
    test.to === "REF"
      ? `${ends({ from: test.from }, practice)} to ${practice.words.REF}`
      : ends(test, practice);
  const how = circumstances(test.circumstance);
  return `${unit}${where}${how ? `, ${how}` : ""}`;
}

export const isAsIs = (entry: Entry) => circumstances(entry) === "" && entry.quantity === "voltage";
