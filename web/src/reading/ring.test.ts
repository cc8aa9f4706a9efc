import { expect, test } from "vitest";
import type { Practice } from "../api/client";
import { keyOf, pairsOf, ringTest, typedOf } from "./ring";

const OUTLETS = [
  { id: "a", title: "Socket 1" },
  { id: "b", title: "Socket 2" },
];
const ENDS = { r1: "0,48", rn: "0.49", r2: " 0.8 " };

test("a ring is a test once all three of its ends are typed", () => {
  expect(ringTest({ ...ENDS, rn: " " }, OUTLETS)).toBeNull();
  expect(ringTest({}, OUTLETS)).toBeNull();
  expect(ringTest(ENDS, OUTLETS)).toEqual({ r1: 0.48, rn: 0.49, r2: 0.8, over_range: [], points: [] });
});

test("an end that is not joined is over-range and has no ohms", () => {
  const open = ringTest({ ...ENDS, rn: "ol" }, OUTLETS);
  expect(open).toMatchObject({ over_range: ["rn"] });
  expect(open).not.toHaveProperty("rn");
});

test("an outlet is there with what was read of it, by its name, and left out with nothing", () => {
  const typed = { ...ENDS, [keyOf("b", "r1_rn")]: "0.24", [keyOf("b", "r1_r2")]: "" };
  expect(ringTest(typed, OUTLETS)?.points).toEqual([{ id: "b", label: "Socket 2", r1_rn: 0.24 }]);
});

test("what is no number goes to the server as it was typed, for it to say so", () => {
  expect(ringTest({ ...ENDS, r1: "half" }, OUTLETS)).toMatchObject({ r1: "half" });
});

test("a test put back into its form comes out the same", () => {
  const typed = {
    ...ENDS,
    rn: "OL",
    [keyOf("a", "r1_rn")]: "0.24",
    [keyOf("a", "r1_r2")]: "0.32",
    [keyOf("b", "r1_r2")]: "0.31",
  };
  const made = ringTest(typed, OUTLETS);
  expect(made && ringTest(typedOf(made), OUTLETS)).toEqual(made);
});

test("the pairs at an outlet are told by its letters", () => {
  const practice = { letters: { L: "L", N: "N", PE: "E" } } as unknown as Practice;
  expect(pairsOf(practice).map((p) => p.name)).toEqual(["L to N", "L to E"]);
  expect(pairsOf(undefined).map((p) => p.name)).toEqual(["L to N", "L to PE"]);
});
