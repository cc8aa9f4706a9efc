import { beforeAll, expect, test, vi } from "vitest";
import type { Entry, Reference } from "../api/client";
import { holdReference, theReference } from "../api/reference";
import tables from "../api/reference.json";
import { functionNamed, functionOf, isPicked } from "./functions";

test("nothing is shown before the tables are there", async () => {
  vi.resetModules();
  const unloaded = await import("../api/reference");
  expect(unloaded.theReference).toThrow("loaded before any place");
});

beforeAll(() => holdReference(tables as unknown as Reference));

test.each<[Entry, string]>([
  [{ quantity: "voltage" }, "volts"],
  [{ quantity: "voltage", mode: "ac" }, "volts"],
  [{ quantity: "voltage", input: "low-z" }, "low-z"],
  [{ quantity: "voltage", mode: "dc" }, "dc"],
  [{ quantity: "voltage", mode: "ac", at_least: 50, below: 120 }, "steps"],
  [{ quantity: "voltage", below: 12 }, "steps"],
  [{ quantity: "resistance", device: "open" }, "ohms"],
  [{ quantity: "presence", value: true }, "presence"],
  [{ quantity: "presence", sweep: [{ m: 0, alarm: true }] }, "sweep"],
  [{ quantity: "current" }, "amps"],
  [{ quantity: "current", from: "BOARD-L" }, "amps"],
  [{ quantity: "voltage", from: "BOARD-L", to: "BOARD-N" }, "board-volts"],
  [{ quantity: "trip" }, "trip"],
])("an entry is known by what it was taken with: %o", (entry, id) => {
  expect(functionOf(entry)?.id).toBe(id);
});

test("what no tester at the Bench is set to has no function", () => {
  expect(functionOf({ quantity: "insulation" })).toBeUndefined();
  expect(() => functionNamed("insulation")).toThrow("insulation");
});

test("every function of every kind is there, and is known again by what it fixes", () => {
  for (const kind of theReference().kinds)
    for (const id of kind.functions) {
      const f = functionNamed(id);
      const how =
        f.entered === "walk" ? { sweep: [] } : f.entered === "steps" ? { at_least: 12 } : ({} as object);
      const ends = f.at_the_board ? { from: "BOARD-L", to: "BOARD-N" } : {};
      expect(functionOf({ quantity: f.quantity, ...f.fixes, ...how, ...ends })?.id).toBe(id);
    }
});

test("a device is said to be open of volts and of dead tests, not of a current", () => {
  const ids = ["volts", "dc", "ohms", "amps", "residual-amps", "load-held", "board-volts", "lamps"];
  expect(ids.filter((id) => functionNamed(id).device)).toEqual(["volts", "dc", "ohms"]);
});

test("what is seen as it is is picked, not typed", () => {
  expect(isPicked(functionNamed("trip"))).toBe(true);
  expect(isPicked(functionNamed("volts"))).toBe(false);
});
