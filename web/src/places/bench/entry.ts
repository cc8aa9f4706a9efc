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
  device?: string;
  neutral?: string;
};

export type FunctionId = "volts" | "low-z" | "dc" | "ohms" | "steps" | "presence";

export const FUNCTIONS: Record<FunctionId, { name: string; quantity: string; units: string[] }> = {
  volts: { name: "AC volts", quantity: "voltage", units: ["V", "mV", "kV"] },
  "low-z": { name: "AC volts, low impedance", quantity: "voltage", units: ["V", "mV", "kV"] },
  dc: { name: "DC volts", quantity: "voltage", units: ["V", "mV", "kV"] },
  ohms: { name: "Ohms, device open", quantity: "resistance", units: ["ohm", "kohm", "Mohm"] },
  steps: { name: "Volt steps", quantity: "voltage", units: ["V"] },
  presence: { name: "Presence", quantity: "presence", units: [] },
};

const FUNCTIONS_OF: Record<string, FunctionId[]> = {
  multimeter: ["volts", "low-z", "ohms", "dc"],
  clamp: ["volts", "ohms"],
  "two-pole": ["steps", "volts"],
  "non-contact": ["presence"],
  "low-ohm": ["ohms"],
  "insulation-tester": ["volts", "ohms"],
  "digital-plug-tester": ["volts"],
};

export const functionsOf = (kind: string): FunctionId[] => FUNCTIONS_OF[kind] ?? ["volts"];

export const UNIT_SIGNS: Record<string, string> = { ohm: "Ω", kohm: "kΩ", Mohm: "MΩ" };

export const sign = (unit: string) => UNIT_SIGNS[unit] ?? unit;

export const entryOf = (reading: Reading) => reading.entry as Entry;

/** A reading of the point, or a dead test of its circuit's sheet. */
export const entryById = (bench: Bench, id: string) =>
  [...bench.readings, ...bench.dead_tests].find((r) => r.id === id)?.entry as Entry | undefined;

export function functionOf(entry: Entry): FunctionId {
  if (entry.quantity === "presence") return "presence";
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
  if (entry.quantity === "presence") return entry.value ? "alarm" : "silent";
  const unit = sign(entry.unit ?? FUNCTIONS[functionOf(entry)].units[0] ?? "");
  if (entry.over_range) return `over range ${unit}`.trim();
  if (entry.value !== undefined) return `${written(entry.value, unit)} ${unit}`;
  if (entry.below === undefined) return `${entry.at_least} ${unit} or more`;
  return entry.at_least === undefined
    ? `under ${entry.below} ${unit}`
    : `${entry.at_least} to ${entry.below} ${unit}`;
}

export function ends(entry: { from?: string; to?: string }, practice: Practice): string {
  const letter = (terminal: string | undefined) => (terminal ? (practice.letters[terminal] ?? terminal) : "");
  return entry.to ? `${letter(entry.from)} to ${letter(entry.to)}` : letter(entry.from);
}

/** The circumstances that are not as they are found. */
export function circumstances(entry: Entry | (NextTest["circumstance"] & { quantity?: string })): string {
  const parts = [];
  if (entry.load_here_a != null) parts.push(`${entry.load_here_a} A load here`);
  if (entry.load_elsewhere_a != null) parts.push(`${entry.load_elsewhere_a} A load elsewhere`);
  if (entry.device === "open") parts.push("device open");
  if (entry.neutral === "lifted") parts.push("neutral off its bar");
  if (entry.input === "low-z") parts.push("low impedance");
  if ("mode" in entry && entry.mode === "dc") parts.push("DC");
  return parts.join(", ");
}

export const isAsIs = (entry: Entry) => circumstances(entry) === "" && entry.quantity === "voltage";
