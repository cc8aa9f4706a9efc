import { expect, test, vi } from "vitest";
import type { Proof, ProofTester } from "../../api/client";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
const { isSet, provedEntry, testedEntry, testerIn } = await import("./hand");

const METER = { id: "m2", sets: true } as ProofTester;
const LAMPS = { id: "t1", sets: false } as ProofTester;
const hand = (change = {}) => ({
  tester: "m2",
  leads: null,
  adapters: [],
  mode: "ac" as const,
  range: " auto ",
  against: "proving-unit" as const,
  lowImpedance: false,
  typed: "239,5",
  note: "",
  ...change,
});

test("a meter says how it is set, and only then counts as set", () => {
  expect(isSet(hand(), METER)).toBe(true);
  expect(isSet(hand({ range: "  " }), METER)).toBe(false);
  expect(isSet(hand({ mode: null }), METER)).toBe(false);
});

test("a tester that is not set needs nothing said", () => {
  expect(isSet(hand({ mode: null, range: "" }), LAMPS)).toBe(true);
  expect(isSet(hand({ mode: null }), undefined)).toBe(true);
});

test("a proof says against what, how the meter was set, and what it showed", () => {
  expect(provedEntry(hand(), METER)).toEqual({
    type: "proved",
    against: "proving-unit",
    mode: "ac",
    range: "auto",
    shows_v: 239.5,
  });
});

test("lamps say which steps were lit, and no function or range", () => {
  expect(provedEntry(hand({ against: "known-live" }), LAMPS, { at_least: 230 })).toEqual({
    type: "proved",
    against: "known-live",
    at_least: 230,
  });
});

test("a pair tested says both its ends, the impedance and a note where one is typed", () => {
  const pair = { from: "L", to: "PE" };
  expect(testedEntry(hand({ typed: "0.2" }), METER, pair)).toEqual({
    type: "tested",
    from: "L",
    to: "PE",
    mode: "ac",
    range: "auto",
    input: "high-z",
    shows_v: 0.2,
  });
  const noted = testedEntry(hand({ lowImpedance: true, note: " behind the lathe " }), LAMPS, pair, {
    below: 12,
  });
  expect(noted).toEqual({
    type: "tested",
    from: "L",
    to: "PE",
    input: "low-z",
    below: 12,
    note: "behind the lathe",
  });
});

test("what is no number goes to the server as it was typed", () => {
  expect(testedEntry(hand({ typed: "O.L" }), METER, { from: "L", to: "N" }).shows_v).toBe("O.L");
});

test("a tester is found by its id, whatever state of it the log names", () => {
  const proof = { testers: [METER, LAMPS] } as Proof;
  expect(testerIn(proof, hand({ tester: "t1/2" }))).toBe(LAMPS);
  expect(testerIn(proof, hand({ tester: null }))).toBeUndefined();
});
