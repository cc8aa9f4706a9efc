import { beforeAll, expect, test } from "vitest";
import type { Entry, Practice, Reference } from "../api/client";
import { holdReference } from "../api/reference";
import tables from "../api/reference.json";
import { circumstances, ends, isAsIs, seen, testName } from "./entry";

beforeAll(() => holdReference(tables as unknown as Reference));

const america = (tables as unknown as Reference).practices[0] as Practice;

test.each<[Entry, string]>([
  [{ quantity: "voltage", value: 120, unit: "V" }, "120.0 V"],
  [{ quantity: "voltage", value: 119.84 }, "119.84 V"],
  [{ quantity: "voltage", at_least: 50, below: 120, unit: "V" }, "50 to 120 V"],
  [{ quantity: "voltage", below: 12, unit: "V" }, "under 12 V"],
  [{ quantity: "voltage", at_least: 690, unit: "V" }, "690 V or more"],
  [{ quantity: "resistance", value: 0.31, unit: "ohm" }, "0.31 Ω"],
  [{ quantity: "resistance", over_range: true, unit: "Mohm" }, "over range MΩ"],
  [{ quantity: "insulation", value: 200, unit: "Mohm" }, "200 MΩ"],
  [{ quantity: "presence", value: true }, "alarm"],
  [
    {
      quantity: "presence",
      sweep: [
        { m: 0, alarm: true },
        { m: 2, alarm: false },
      ],
    },
    "2 places, 1 sound",
  ],
  [{ quantity: "trip", value: false }, "did not trip"],
  [{ quantity: "sequence", value: true }, "L1–L2–L3"],
  [{ quantity: "lamps", value: { "L-N": true, "L-PE": true, "N-PE": false } }, "lit L-N, L-PE"],
  [{ quantity: "lamps", value: { "L-N": false } }, "all dark"],
  [{ quantity: "current", value: 9.5, unit: "A", min: 3.1, max: 41 }, "9.5 A, 3.1 to 41 A"],
  [{ quantity: "current", max: 41 }, "up to 41 A"],
])("what was seen, with its unit: %o", (entry, said) => {
  expect(seen(entry)).toBe(said);
});

test("points are named by the practice's letters, and what has none by what it is", () => {
  expect(ends({ quantity: "voltage", from: "L", to: "PE" }, america)).toBe("H to G");
  expect(ends({ quantity: "current", from: "BOARD-N" }, america)).toBe("N at the board");
  expect(ends({ quantity: "lamps" }, america)).toBe("Lamps");
  expect(ends({ quantity: "trip", from: "L", to: "PE" }, america)).toBe("Trip test");
});

test("the circumstances are said that are not as they are found", () => {
  expect(circumstances({ quantity: "voltage", load_here_a: 9, load_between: ["L1", "N"] })).toBe(
    "9 A load here, between L1 and N",
  );
  expect(circumstances({ quantity: "voltage", input: "low-z", mode: "dc" })).toBe("low impedance, DC");
  expect(circumstances({ quantity: "voltage", mode: "ac" })).toBe("");
});

test("only a voltage between two contacts, as found, fills a pair", () => {
  expect(isAsIs({ quantity: "voltage", mode: "ac", from: "L", to: "N", value: 1 })).toBe(true);
  expect(isAsIs({ quantity: "voltage", mode: "dc", from: "L", to: "N", value: 1 })).toBe(false);
  expect(isAsIs({ quantity: "resistance", from: "L", to: "N", value: 1 })).toBe(false);
  expect(isAsIs({ quantity: "presence", from: "L", value: true })).toBe(false);
});

test("a reading that is to be taken says what it is unless it is volts", () => {
  const test = { quantity: "resistance", from: "N", to: "PE", circumstance: { device: "open" } };
  expect(testName(test as never, america)).toBe("Resistance N to G, device open");
  const volts = { quantity: "voltage", from: "PE", to: "REF", circumstance: {} };
  expect(testName(volts as never, america)).toBe("G to independent ground");
  expect(testName({ ...volts, from: "BOARD-L", to: "BOARD-N" } as never, america)).toBe(
    "H to N at the board",
  );
});
