import { expect, test } from "vitest";
import { figure } from "./figure";

test("a number is written as a display has it", () => {
  expect([0.2834, 0.4, 1, 12.345, 119.87, 2345.6].map(figure)).toEqual([
    "0.28",
    "0.4",
    "1",
    "12.35",
    "119.9",
    "2346",
  ]);
  expect(figure(0)).toBe("0");
});
