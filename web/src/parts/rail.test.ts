import { describe, expect, it } from "vitest";
import { inACase, onTheRail } from "./rail";

const onAPhone = (pathname: string, bench: string | null = null) =>
  onTheRail(pathname, bench)
    .filter((place) => !place.folded)
    .map((place) => place.id);

describe("the rail", () => {
  it("has five places on a phone, in the order of the work", () => {
    expect(onAPhone("/today")).toEqual(["today", "sites", "prove-dead", "dead-tests", "rounds"]);
    expect(onAPhone("/today", "p1")).toEqual(["today", "sites", "prove-dead", "dead-tests", "bench"]);
  });

  it.each(["/kit/t1", "/rounds/r1", "/plug-in", "/bench/p1", "/sites/s1", "/waiting"])(
    "has the place in hand among them, at %s, and keeps its order",
    (pathname) => {
      const places = onTheRail(pathname, "p1");
      expect(places.map((place) => place.id)).toEqual(onTheRail("/today", "p1").map((place) => place.id));
      expect(onAPhone(pathname, "p1")).toHaveLength(5);
      const here = places.find((place) => pathname.startsWith(`/${place.id}`));
      expect(here?.folded ?? false).toBe(false);
    },
  );

  it("leads back to the point in hand, and has no Bench without one", () => {
    expect(onTheRail("/today", "p1").find((place) => place.id === "bench")?.to).toBe("/bench/p1");
    expect(onTheRail("/today", null).map((place) => place.id)).not.toContain("bench");
  });
});

it("inside a case there is what one practises in, at the case's own point", () => {
  const to = (hunt: string | null, outlets: object[]) =>
    inACase({ point: { id: "p1" }, hunt, outlets }).map((place) => place.to);
  expect(to(null, [])).toEqual(["/bench/p1", "/prove-dead", "/dead-tests"]);
  expect(to("h1", [])).toEqual(["/hunts/h1", "/prove-dead"]);
  expect(to(null, [{}, {}])).toEqual(["/rounds", "/bench/p1", "/prove-dead"]);
});
