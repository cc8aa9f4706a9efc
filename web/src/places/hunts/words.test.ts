import { expect, test } from "vitest";
import { pairsOf, percent } from "./words";

test("a share is said in whole per cent, a trace as such, and none as nothing", () => {
  expect([0, 0.004, 0.184, 1].map(percent)).toEqual(["", "under 1 %", "18 %", "100 %"]);
});

test("the usual pair is chosen from first, once, and a hunt between no two asks for none", () => {
  expect(pairsOf(["L", "PE"])).toEqual([
    ["L", "PE"],
    ["L", "N"],
    ["N", "PE"],
  ]);
  expect(pairsOf([])).toEqual([]);
});
