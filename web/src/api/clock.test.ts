import { describe, expect, it, test } from "vitest";
import { byServerClock, clocked, heardDate, type Moment, msUntil, since } from "./clock";

const asked: Moment = { at: 1_000_000, tick: 500 };
const later = (at: number, tick: number): Moment => ({ at: asked.at + at, tick: asked.tick + tick });
const heard = { now: "2026-11-24T10:00:00Z", asked };
const EXPIRES = "2026-11-24T10:10:00Z";
const MINUTE = 60_000;

describe("the server's clock on this device", () => {
  it("counts down with either way of counting", () => {
    expect(msUntil(EXPIRES, heard, later(MINUTE, MINUTE))).toBe(9 * MINUTE);
    expect(msUntil(EXPIRES, heard, later(11 * MINUTE, 11 * MINUTE))).toBe(-MINUTE);
  });

  it("does not depend on what time this device thinks it is", () => {
    const off = { ...heard, asked: { at: asked.at + 3_600_000, tick: 500 } };
    const now = { at: asked.at + 3_600_000 + MINUTE, tick: 500 + MINUTE };
    expect(msUntil(EXPIRES, off, now)).toBe(9 * MINUTE);
  });

  it("gives no time for a clock that is set back, nor for a device that slept", () => {
    expect(since(asked, later(-3_600_000, 20 * MINUTE))).toBe(20 * MINUTE);
    expect(since(asked, later(20 * MINUTE, 5))).toBe(20 * MINUTE);
    expect(since(asked, later(-5, -5))).toBe(0);
  });

  it("counts from when it was asked, so that a slow answer leaves less and never more", async () => {
    const answer = await clocked(async () => {
      await new Promise((done) => setTimeout(done, 30));
      return { now: heard.now };
    });
    expect(since(answer.asked)).toBeGreaterThanOrEqual(29);
  });
});

test("a device whose clock is an hour off tells times by the server's, one a few seconds off by its own", () => {
  const at = "2026-11-24T10:00:00.000Z";
  const now = Date.parse(at);
  heardDate("Tue, 24 Nov 2026 10:00:07 GMT", now);
  expect(byServerClock(at)).toBe(at);
  heardDate("Tue, 24 Nov 2026 09:00:00 GMT", now);
  expect(byServerClock(at)).toBe("2026-11-24T09:00:00.500Z");
  heardDate("Tue, 24 Nov 2026 09:00:09 GMT", now);
  expect(byServerClock(at)).toBe("2026-11-24T09:00:00.500Z");
  heardDate(null, now);
  heardDate("no date", now);
  expect(byServerClock(at)).toBe("2026-11-24T09:00:00.500Z");
  heardDate("Tue, 24 Nov 2026 10:00:01 GMT", now);
  expect(byServerClock(at)).toBe(at);
});
