import { expect, test } from "vitest";
import type { EventEntry, Practice, ProofEvent } from "../../api/client";
import { eventWords, KIND_WORDS } from "./words";

const practice = { letters: { L: "H", N: "N", PE: "G" } } as unknown as Practice;
const sources = new Map([["s1", "Board W, way 7"]]);
const said = (type: ProofEvent["type"], entry: ProofEvent["entry"] = {}) =>
  eventWords({ ...entry, type } as EventEntry, practice, sources);

test.each<[ProofEvent["type"], ProofEvent["entry"], string]>([
  ["off", { source: "s1" }, "Board W, way 7: off"],
  ["off", { source: "s9" }, "s9: off"],
  ["off", {}, "every source: off"],
  ["locked", { source: "s1", lock: "K-07" }, "Board W, way 7: locked, K-07"],
  ["locked", { source: "s1" }, "Board W, way 7: locked"],
  ["unlocked", { source: "s1" }, "Board W, way 7: lock removed"],
  ["re-energised", { source: "s1" }, "Board W, way 7: on again"],
  ["source-found", { label: "Dome UPS" }, "Source found: Dome UPS"],
  ["proved", { against: "proving-unit", shows_v: 239 }, "Proved on proving unit, 239 V"],
  ["proved", { at_least: 230 }, "Proved on known source, 230 V lit"],
  ["prove-failed", {}, "Failed its proof"],
  ["tested", { from: "L", to: "PE", shows_v: 0.1 }, "H to G: 0.1 V"],
  ["tested", { from: "L", to: "N", below: 12 }, "H to N: no lamp lit"],
  ["tested", { from: "L", to: "N", shows_v: 0, input: "low-z", mode: "dc" }, "H to N: 0 V, low impedance DC"],
  ["screened", { alarm: true }, "Screened: alarm"],
  ["screened", { alarm: false }, "Screened: silent"],
  ["stated", {}, "Confirmed dead"],
  ["left", {}, "Left"],
  ["returned", {}, "Here"],
  ["handed-over", { note: "Anna" }, "Handed over to Anna"],
  ["handed-over", {}, "Handed over"],
  ["closed", {}, "Closed"],
])("what happened is told as one says it: %s %o", (type, entry, words) => {
  expect(said(type, entry)).toBe(words);
});

test("every kind of source has words", () => {
  for (const words of Object.values(KIND_WORDS)) expect(words).toMatch(/^[A-Z]/);
});
