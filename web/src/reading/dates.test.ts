import { beforeAll, expect, test } from "vitest";
import type { Reference } from "../api/client";
import { holdReference } from "../api/reference";
import tables from "../api/reference.json";
import { dayAndTimeOf, dayOf, monthOf, timeOf } from "./dates";

const AT = new Date(2026, 10, 24, 15, 5).getTime();
const AMERICA = "north-america";
const BRITAIN = "british";

beforeAll(() => holdReference(tables as unknown as Reference));

test("a time is written as the practice writes it", () => {
  expect(timeOf(AT, BRITAIN)).toBe("15:05");
  expect(timeOf(AT, AMERICA)).toMatch(/^3:05\sPM$/);
});

test("so is a day, and both together", () => {
  expect(dayOf(AT, BRITAIN)).toBe("24 Nov 2026");
  expect(dayOf(AT, AMERICA)).toBe("Nov 24, 2026");
  expect(dayAndTimeOf(AT, BRITAIN)).toBe("24 Nov 2026, 15:05");
  expect(monthOf(AT, BRITAIN)).toBe("Nov 26");
});

test("where no practice is known it is still a date", () => {
  expect(dayOf(AT)).toContain("2026");
});
