/** Words for what the log holds. */

import type { EventEntry, Practice, Proof } from "../../api/client";

export const KIND_WORDS: Record<string, string> = {
  device: "Protective device",
  "second-feed": "Second feed",
  control: "Control feed",
  "shared-neutral": "Shared neutral",
  solar: "Solar",
  "battery-inverter": "Battery inverter",
  generator: "Generator",
  capacitor: "Capacitor or drive",
};

export const WHAT_WORDS: Record<Proof["what"], string> = {
  circuit: "Circuit",
  board: "Board",
  machine: "Machine",
};

/** `entry`: with its type; `sources`: their names by id. */
export function eventWords(entry: EventEntry, practice: Practice, sources: Map<string, string>): string {
  const letter = (terminal: unknown) => practice.letters[String(terminal)] ?? String(terminal);
  const source = entry.source ? (sources.get(String(entry.source)) ?? String(entry.source)) : "every source";
  const volts =
    entry.shows_v !== undefined
      ? `${entry.shows_v} V`
      : entry.at_least !== undefined
        ? `${entry.at_least} V lit`
        : entry.below !== undefined
          ? "no lamp lit"
          : "";
  switch (entry.type) {
    case "off":
      return `${source}: off`;
    case "locked":
      return `${source}: locked${entry.lock ? `, ${entry.lock}` : ""}`;
    case "unlocked":
      return `${source}: lock removed`;
    case "re-energised":
      return `${source}: on again`;
    case "source-found":
      return `Source found: ${entry.label}`;
    case "proved":
      return `Proved on ${String(entry.against ?? "known source").replace("-", " ")}, ${volts}`;
    case "prove-failed":
      return "Failed its proof";
    case "tested":
      return `${letter(entry.from)} to ${letter(entry.to)}: ${volts}${entry.input === "low-z" ? ", low impedance" : ""}${entry.mode === "dc" ? " DC" : ""}`;
    case "screened":
      return entry.alarm ? "Screened: alarm" : "Screened: silent";
    case "stated":
      return "Confirmed dead";
    case "left":
      return "Left";
    case "returned":
      return "Here";
    case "handed-over":
      return entry.note ? `Handed over to ${entry.note}` : "Handed over";
    default:
      return "Closed";
  }
}
