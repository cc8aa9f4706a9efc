import { expect, it } from "vitest";
import type { ProofLine, Site, Tester } from "../api/client";
import { beside, matching, named } from "./find";

const site = {
  id: "s1",
  name: "Larkspur Hill Observatory",
  supplies: [
    {
      boards: [
        {
          name: "Warm room board W",
          circuits: [
            {
              id: "c1",
              name: "Workshop outlets",
              points: [
                { id: "p3", name: "Outlet 3, by the lathe" },
                { id: "p4", name: "Outlet 4, drill press" },
              ],
            },
          ],
        },
      ],
    },
  ],
} as unknown as Site;
const all = named(
  [site],
  [{ id: "m2", label: "Meter M2" } as Tester],
  [{ id: "q1", name: "Workshop outlets", site: "Larkspur Hill Observatory" } as ProofLine],
);
const found = (typed: string, last: string[] = []) => matching(all, typed, last).map((one) => one.to);

it("finds a point, a circuit, a proof and a tester by any of their words", () => {
  expect(found("lathe")).toEqual(["/bench/p3"]);
  expect(found("M2")).toEqual(["/kit/m2"]);
  expect(found("workshop").slice(0, 2)).toEqual(["/sites/s1?circuit=c1", "/prove-dead/q1"]);
  expect(found("outlet drill")).toEqual(["/bench/p4"]);
});

it("has the points last measured first, and without a word them alone", () => {
  expect(found("outlet", ["p4"]).slice(0, 2)).toEqual(["/bench/p4", "/bench/p3"]);
  expect(found("", ["p4", "gone", "p3"])).toEqual(["/bench/p4", "/bench/p3"]);
});

it("puts first what begins with it, and finds nothing where nothing is typed or fits", () => {
  expect(found("outlet")[0]).toBe("/bench/p3");
  expect(found("  ")).toEqual([]);
  expect(found("pump")).toEqual([]);
});

const known = [{ to: "/bench/p1", name: "Outlet 1", what: "Workshop" }];
const row = (place: string, of: string | null, name: string, query = "") => ({
  place,
  of,
  name,
  what: "",
  query,
});

it("what the record has stands after what this device knows, each once", () => {
  const all = beside(known, [row("point", "p1", "Outlet 1"), row("visit", "v1", "Yearly test")]);
  expect(all.map(({ to }) => to)).toEqual(["/bench/p1", "/record/visits/v1"]);
});

it("a person or a day is on the line of time of the whole crew", () => {
  const [one] = beside([], [row("crew", null, "A & B", "by=A+%26+B")]);
  expect(one?.to).toMatch(/^\/record\/timeline\/crew\/[0-9-]+\?by=A\+%26\+B$/);
});

it("what has no place here is left out", () => {
  expect(beside([], [row("nowhere", "x", "X")])).toEqual([]);
});
