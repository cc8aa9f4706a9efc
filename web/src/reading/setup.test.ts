import { beforeAll, beforeEach, expect, test } from "vitest";
import type { Reading, Reference, Tester } from "../api/client";
import { holdReference } from "../api/reference";
import tables from "../api/reference.json";
import { UNCLAMPED } from "./clamp";
import { circumstances } from "./entry";
import { A_ROD } from "./referenceEarth";
import { apply, type Change, entryFor, functionsHere, isTyped, type Setup, takenUp } from "./setup";

beforeAll(() => holdReference(tables as unknown as Reference));

const TERMINALS = ["L", "N", "PE"];
const bench = {
  terminals: TERMINALS,
  functions: {
    "": ["volts", "low-z", "ohms", "dc", "amps", "hertz"],
    plug: ["lamps"],
    clamp: ["amps", "volts", "ohms"],
  },
};
const START: Setup = {
  tester: null,
  what: "volts",
  probes: { measuring: "L", reference: "N" },
  load: "none",
  amperes: "10",
  loadBetween: "",
  nothingElseOn: false,
  deviceOpen: false,
  neutralLifted: false,
  clamp: UNCLAMPED,
  earth: A_ROD,
  typed: "",
  unit: "V",
  correcting: null,
};
let setup: Setup;
const change = (...changes: Change[]) => {
  for (const one of changes) setup = apply(setup, one, bench);
  return setup;
};
const entry = () => entryFor(setup, TERMINALS);
beforeEach(() => {
  setup = START;
});

test("what was half typed comes back, but for a tester and a function there are no more", () => {
  const begun = { ...START, tester: "m2", what: "amps", typed: "119." };
  const up = (what: Partial<Setup>, testers = [{ id: "m2" }]) => takenUp(what, START, bench, testers);
  expect(up(begun)).toMatchObject({ tester: "m2", what: "amps", typed: "119." });
  expect(up(begun, [])).toMatchObject({ tester: null, typed: "119." });
  expect(up({ ...begun, what: "ghosts" })).toEqual(START);
  const { clamp: _, loadBetween: __, ...older } = begun;
  expect(up(older)).toMatchObject({ clamp: UNCLAMPED, loadBetween: "", typed: "119." });
});

test("Enter on nothing is no reading; of a current its highest is one", () => {
  expect(isTyped({ ...START, typed: " " })).toBe(false);
  expect(isTyped({ ...START, typed: "0" })).toBe(true);
  const highest = { ...START, clamp: { ...UNCLAMPED, max: "3" } };
  expect(isTyped({ ...highest, what: "amps" })).toBe(true);
  expect(isTyped(highest)).toBe(false);
});

test("a voltage is its two points, its mode and its number", () => {
  change({ do: "type", typed: "119.8" });
  expect(entry()).toEqual({ quantity: "voltage", mode: "ac", from: "L", to: "N", value: 119.8, unit: "V" });
});

test("what a function fixes is in the entry", () => {
  change({ do: "function", what: "low-z" }, { do: "type", typed: "2" });
  expect(entry()).toMatchObject({ quantity: "voltage", mode: "ac", input: "low-z" });
  change({ do: "function", what: "dc" });
  expect(entry().mode).toBe("dc");
});

test("reference first, then measuring; a third contact begins anew", () => {
  change({ do: "contact", terminal: "PE" });
  expect(setup.probes).toEqual({ reference: "PE", measuring: null });
  change({ do: "contact", terminal: "L" });
  expect(setup.probes).toEqual({ reference: "PE", measuring: "L" });
  change({ do: "contact", terminal: "N" });
  expect(setup.probes).toEqual({ reference: "N", measuring: null });
});

test("ohms open the device and take the load off; volts put nothing on again", () => {
  change({ do: "load", load: "here" }, { do: "function", what: "ohms" }, { do: "type", typed: "0.3" });
  expect(entry()).toEqual({
    quantity: "resistance",
    from: "L",
    to: "N",
    value: 0.3,
    unit: "ohm",
    device: "open",
  });
  change({ do: "neutral", lifted: true });
  expect(entry().neutral).toBe("lifted");
  change({ do: "function", what: "volts" });
  expect(entry()).not.toHaveProperty("device");
  expect(entry()).not.toHaveProperty("neutral");
});

test("a known load is in the entry with what it is between", () => {
  change({ do: "load", load: "elsewhere" }, { do: "amperes", amperes: "9" });
  expect(entry()).toMatchObject({ load_elsewhere_a: 9 });
  change({ do: "load between", pair: "L1 N" });
  expect(entry().load_between).toEqual(["L1", "N"]);
});

test("that nothing else is on is in the entry until the device is open, and comes with a test and a correction", () => {
  change({ do: "nothing else on", said: true }, { do: "load", load: "here" });
  expect(entry()).toMatchObject({ nothing_else_on: true, load_here_a: 10 });
  expect(circumstances(entry())).toBe("10 A load here, nothing else on");
  change({ do: "device", open: true });
  expect(entry().nothing_else_on).toBeUndefined();
  change({ do: "nothing else on", said: true }, { do: "load", load: "none" });
  expect(setup.nothingElseOn, "as it is, again").toBe(false);
  const test = { quantity: "voltage", from: "L", to: "N", circumstance: { nothing_else_on: true } };
  change({ do: "test", test: test as never, tester: null });
  expect(setup.nothingElseOn).toBe(true);
});

test("a clamp is at one conductor, at the board or here, once or in turns", () => {
  change({ do: "function", what: "amps" }, { do: "type", typed: "9.5" });
  expect(setup.probes.reference).toBeNull();
  change({ do: "clamp", clamp: { atBoard: true, turns: 10, max: "41" } });
  expect(entry()).toMatchObject({ quantity: "current", from: "BOARD-L", value: 9.5, turns: 10, max: 41 });
  expect(entry().to).toBeUndefined();
  change({ do: "clamp", clamp: { roundTwo: true } });
  expect(entry().to).toBe("BOARD-N");
});

test("volts at the board are of the conductors of two contacts, and are set up again as such", () => {
  change({ do: "function", what: "board-volts" }, { do: "type", typed: "120.4" });
  expect(entry()).toMatchObject({ quantity: "voltage", mode: "ac", from: "BOARD-L", to: "BOARD-N" });
  const test = { quantity: "voltage", from: "BOARD-L", to: "BOARD-N", circumstance: { load_here_a: 9 } };
  change({ do: "test", test: test as never, tester: null });
  expect(setup).toMatchObject({
    what: "board-volts",
    probes: { measuring: "L", reference: "N" },
    load: "here",
  });
});

test("a tester that cannot do what was set does what it does first", () => {
  change({ do: "tester", tester: { id: "plug" } as Tester });
  expect(setup).toMatchObject({ tester: "plug", what: "lamps" });
  change({ do: "tester", tester: { id: "clamp" } as Tester });
  expect(setup.what).toBe("amps");
  expect(functionsHere(bench, "nobody's")).toEqual(bench.functions[""]);
});

test("what a newer server knows and this page does not is not offered", () => {
  const newer = { functions: { "": ["volts", "impedance"] } };
  expect(functionsHere(newer, null)).toEqual(["volts"]);
});

test("a next test sets up everything it says", () => {
  const test = {
    quantity: "voltage",
    from: "N",
    to: "PE",
    circumstance: { load_elsewhere_a: 10, input: "low-z" },
  };
  change({ do: "test", test: test as never, tester: "m" });
  expect(setup).toMatchObject({ what: "low-z", load: "elsewhere", amperes: "10", tester: "m" });
  expect(setup.probes).toEqual({ measuring: "N", reference: "PE" });
  const clamped = { quantity: "current", from: "BOARD-PE", to: null, circumstance: { load_here_a: 8 } };
  change({ do: "test", test: clamped as never, tester: null });
  expect(setup).toMatchObject({ what: "amps", load: "here", amperes: "8", clamp: { atBoard: true } });
  expect(setup.probes.measuring).toBe("PE");
});

test("correcting a reading puts back how it was taken", () => {
  const reading = {
    id: "r1",
    tester: "m",
    entry: { quantity: "resistance", from: "L", to: "PE", unit: "kohm", device: "open", neutral: "lifted" },
  };
  change({ do: "correct", reading: reading as unknown as Reading });
  expect(setup).toMatchObject({
    what: "ohms",
    unit: "kohm",
    deviceOpen: true,
    neutralLifted: true,
    correcting: "r1",
  });
  change({ do: "stop correcting" });
  expect(setup.correcting).toBeNull();
});

test("after a reading the next pair nobody measured is set up", () => {
  const done = { status: "counts", entry: { quantity: "voltage", mode: "ac", from: "L", to: "N", value: 1 } };
  change({ do: "recorded", readings: [done as unknown as Reading] });
  expect(setup.probes).toEqual({ measuring: "L", reference: "PE" });
});

test("where a probe is on a reference earth the entry says which", () => {
  change({ do: "pair", measuring: "PE", reference: "REF" }, { do: "type", typed: "0.3" });
  expect(entry().reference).toBe("rod");
  change({ do: "earth", earth: { kind: "outlet", at: " hall " } });
  expect(entry()).toMatchObject({ reference: "outlet", reference_at: "hall" });
  change({ do: "pair", measuring: "L", reference: "N" });
  expect(entry()).not.toHaveProperty("reference");
});

test("a correction takes up the reference earth it was", () => {
  const was = { quantity: "voltage", from: "PE", to: "REF", reference: "outlet", reference_at: "hall" };
  change({ do: "correct", reading: { id: "r1", entry: was } as unknown as Reading });
  expect(setup.earth).toEqual({ kind: "outlet", at: "hall" });
});
