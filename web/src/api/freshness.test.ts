import { beforeAll, describe, expect, it, vi } from "vitest";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
let fresh: typeof import("./freshness");
beforeAll(async () => {
  fresh = await import("./freshness");
});

const good = { dataUpdatedAt: 10_000, fetchStatus: "idle", isError: false, failureCount: 0 } as const;

describe("an answer is only as good as its age", () => {
  it("is as good as new within two polls", () => {
    expect(fresh.isCutOff(good, 2_000, false, 13_900)).toBe(false);
  });

  it.each([
    ["two polls have gone by", good, false, 14_001],
    ["the request is paused", { ...good, fetchStatus: "paused" } as const, false, 10_001],
    ["the request failed", { ...good, isError: true }, false, 10_001],
    ["it is being tried again", { ...good, failureCount: 1 }, false, 10_001],
    ["the line is down", good, true, 10_001],
  ])("is last known when %s", (_why, query, down, now) => {
    expect(fresh.isCutOff(query, 2_000, down, now)).toBe(true);
  });

  it("has no age while it is asked for the first time", () => {
    const first = { ...good, dataUpdatedAt: 0, fetchStatus: "fetching" } as const;
    expect(fresh.isCutOff(first, 2_000, false, 1_000_000)).toBe(false);
    expect(fresh.isCutOff({ ...first, failureCount: 1 }, 2_000, false, 1_000_000)).toBe(true);
  });

  it("takes a slow line's own time for a poll, and no endless one", () => {
    expect(fresh.pollOf(2_000, 0)).toBe(2_000);
    expect(fresh.pollOf(2_000, 5_000)).toBe(5_000);
    expect(fresh.pollOf(2_000, 600_000)).toBe(6_000);
  });

  it("is said in words", () => {
    const at = new Date(2026, 10, 24, 10, 41).getTime();
    expect(fresh.lastKnown(at, at + 3 * 60_000)).toMatch(
      /^Last known at 10:41(\sAM)?\. Cut off for 3 min\.$/,
    );
    expect(fresh.lastKnown(at, at + 5_000)).toContain("less than a minute");
  });
});
