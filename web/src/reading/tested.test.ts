import { beforeAll, expect, test } from "vitest";
import type { Reference } from "../api/client";
import { holdReference, theReference } from "../api/reference";
import tables from "../api/reference.json";
import { fieldsOf, kindOf, mainFigure, presetTyped, testOf } from "./tested";

beforeAll(() => holdReference(tables as unknown as Reference));

test.each([
  ["continuity", { measured_ohm: "0,31" }, { measured_ohm: 0.31 }],
  ["continuity", { measured_ohm: "ol" }, { over_range: true }],
  ["continuity", { measured_ohm: "  " }, null],
  ["separation", { measured_ohm: "4.2", "measured_ohm.unit": "kohm" }, { measured_ohm: 4.2, unit: "kohm" }],
  ["separation", { measured_ohm: "4.2", "measured_ohm.unit": "ohm" }, { measured_ohm: 4.2 }],
  ["insulation", { measured_mohm: "> 200", test_v: "500" }, { at_least_mohm: 200, test_v: 500 }],
  ["insulation", { test_v: "500" }, null],
  ["closed-contact", { open_over_range: "true" }, { open_over_range: true }],
  [
    "closed-contact",
    { open_over_range: "false", closed_ohm: "OL" },
    { open_over_range: false, closed_over_range: true },
  ],
  ["capacitor", { measured_uf: "9.8" }, null],
  ["capacitor", { printed_uf: "10" }, null],
  ["capacitor", { printed_uf: "10", measured_uf: "9.8" }, { printed_uf: 10, measured_uf: 9.8 }],
  ["battery", { volts: "-12.4" }, { volts: -12.4 }],
  ["battery", { volts: "twelve" }, { volts: "twelve" }],
  [
    "temperature-sensor",
    { "pairs.0.0": "20", "pairs.0.1": "20.4", "pairs.1.0": "60" },
    { pairs: [[20, 20.4]] },
  ],
  ["temperature-sensor", { "pairs.0.0": "20" }, null],
])("a %s typed as %o", (kind, typed, entry) => {
  expect(testOf(fieldsOf(kind), typed as unknown as Record<string, string>)).toEqual(entry);
});

test("what a line knows is picked already, and makes no test by itself", () => {
  const fields = fieldsOf("insulation");
  const typed = presetTyped(fields, { test_v: 250, from: "L" });
  expect(typed).toEqual({ test_v: "250" });
  expect(testOf(fields, typed)).toBeNull();
});

test("a part asks for no more than its check does", () => {
  expect(fieldsOf("closed-contact", ["open_over_range", "latches"]).map((f) => f.key)).toEqual([
    "closed_ohm",
  ]);
  expect(mainFigure(fieldsOf("element"))?.key).toBe("measured_ohm");
});

test("every kind of dead test has a form, and is made with ohms or at a test voltage", () => {
  for (const { id } of theReference().dead_tests) expect(fieldsOf(id).length).toBeGreaterThan(0);
  expect(kindOf("insulation")?.use).toBe("insulation");
  expect(kindOf("ring")?.use).toBe("ohms");
});
