import { expect, test } from "vitest";
import { dueSince, today } from "./due";

test("a day is written by the device's own calendar, so that an evening is not tomorrow", () => {
  expect(today(new Date(2026, 10, 4, 23, 50))).toBe("2026-11-04");
});

test("what was never tested is due, and what was tested that day is not", () => {
  expect(dueSince(null, "2026-11-24")).toBe(true);
  expect(dueSince("2026-11-23", "2026-11-24")).toBe(true);
  expect(dueSince("2026-11-24", "2026-11-24")).toBe(false);
});
