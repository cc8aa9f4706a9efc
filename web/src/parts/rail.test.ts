import { describe, expect, it } from "vitest";
import { onTheRail } from "./rail";

const names = (pathname: string, bench: string | null = null) =>
  onTheRail(pathname, bench).first.map((place) => place.id);

describe("the rail", () => {
  it("has five places on a phone, in the order of the work", () => {
    expect(names("/today")).toEqual(["today", "sites", "prove-dead", "dead-tests", "rounds"]);
    expect(names("/today", "p1")).toEqual(["today", "sites", "prove-dead", "dead-tests", "bench"]);
  });

  it.each(["/kit/t1", "/rounds/r1", "/plug-in", "/bench/p1", "/sites/s1"])(
    "has %s among them",
    (pathname) => {
      const { first, more } = onTheRail(pathname, "p1");
      expect(first).toHaveLength(5);
      expect(first.some((place) => pathname.startsWith(`/${place.id}`))).toBe(true);
      expect(first.length + more.length).toBe(8);
    },
  );

  it("leads back to the point in hand, and has no Bench without one", () => {
    expect(onTheRail("/today", "p1").first.at(-1)?.to).toBe("/bench/p1");
    expect(onTheRail("/today", null).more.map((place) => place.id)).toEqual(["plug-in", "kit"]);
  });
});
