import { expect, test } from "vitest";
import { figure } from "./figure";

test("a number is written as a display has it", () => {
  expect([0.28344, 0.4, 12.345678, 119.87, 23456.7].map(figure)).toEqual([
    "0.28344",
    "0.4",
    "12.346",
    "119.87",
    "23457",
  ]);
  expect([0, null].map(figure)).toEqual(["0", "–"]);
});
