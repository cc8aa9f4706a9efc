import { beforeAll, expect, test } from "vitest";
import type { Reference } from "../api/client";
import { holdReference } from "../api/reference";
import tables from "../api/reference.json";
import { contactName, probeHint, spokenContact } from "./probes";
import { typedNumber, typedOrNone } from "./typedNumber";

const reference = tables as unknown as Reference;
const [america, , british] = reference.practices;
if (!america || !british) throw new Error("the tables have them");

beforeAll(() => holdReference(reference));

test("the reference goes on first, and comes off last", () => {
  const nowhere = { reference: null, measuring: null };
  expect(probeHint("volts", nowhere, america)).toBe("Tap the reference contact first.");
  expect(probeHint("volts", { ...nowhere, reference: "N" }, america)).toContain("Reference at N");
  const both = probeHint("volts", { reference: "N", measuring: "L" }, america);
  expect(both.indexOf("N first")).toBeLessThan(both.indexOf("on H"));
  expect(both).toContain("Off in reverse");
});

test("a contact is called what its practice writes on it, an earth of its own by name", () => {
  expect([contactName("PE", america), contactName("PE", british)]).toEqual(["G", "E"]);
  expect([contactName("REF", america), contactName("REF", british)]).toEqual([
    "independent ground",
    "independent earth",
  ]);
  expect(contactName("BOARD-L", british)).not.toBe("");
});

test("what has no two probes says what to do with it instead, and where it is held", () => {
  const lamps = probeHint("lamps", { reference: null, measuring: null }, british);
  expect(lamps).not.toContain("reference");
  const held = probeHint("presence", { reference: null, measuring: "L" }, british);
  expect(held).toContain("L");
  expect(held).not.toContain("{at}");
});

test("every function there is has a hint, wherever the probes are", () => {
  for (const f of reference.functions)
    for (const reference of [null, "N"])
      for (const measuring of [null, "L"])
        expect(probeHint(f.id, { reference, measuring }, america)).toMatch(/^[A-Z].*\.$/);
});

test("what is to be done beside putting the probes on is said with it", () => {
  const at = { reference: "PE", measuring: "L" };
  for (const f of reference.functions.filter((f) => f.hint && !f.hint_at))
    expect(probeHint(f.id, at, america)).toContain(f.hint);
});

test("a comma is as good as a point, and what is no number stays as it was typed", () => {
  expect(typedNumber("119,8")).toBe(119.8);
  expect(typedNumber(" -0.4 ")).toBe(-0.4);
  expect(typedNumber("1,198.4")).toBe("1,198.4");
  expect(typedNumber("OL")).toBe("OL");
  expect(typedNumber("")).toBe("");
  expect(typedOrNone("  ")).toBeNull();
  expect(typedOrNone("0")).toBe(0);
});

test("a contact is said aloud by its name, one of several lines with its number", () => {
  expect(["L", "L2", "N", "PE"].map((t) => spokenContact(t, america))).toEqual([
    "hot",
    "hot 2",
    "neutral",
    "ground",
  ]);
  expect(spokenContact("PE", british)).toBe("earth");
});
