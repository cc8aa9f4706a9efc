/** How a hunt's states and tasks are called. */

import type { HuntLine } from "../../api/client";

export const STATES: Record<HuntLine["state"], { name: string; sign: string }> = {
  hunting: { name: "Hunting", sign: "…" },
  found: { name: "Found", sign: "●" },
  clear: { name: "Clear", sign: "○" },
  contradictory: { name: "Contradicts itself", sign: "≠" },
  mended: { name: "Mended", sign: "◐" },
  closed: { name: "Closed", sign: "✓" },
};

export const TASKS: Record<string, string> = { open: "Open", probe: "Measure at", measure: "Measure at" };

export const KINDS: Record<HuntLine["kind"], string> = {
  short: "a short or an earth fault",
  open: "an open conductor",
  "poor-joint": "a poor joint",
};

export const percent = (share: number) =>
  share === 0 ? "" : share < 0.01 ? "under 1 %" : `${Math.round(100 * share)} %`;

export const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
