import { expect, test } from "vitest";
import type { OverBoard } from "../../../api/client";
import type { Waiting } from "../../../api/outbox/waiting";
import { roundNow, withTaps } from "./taps";

const outlet = (id: string, ...live: (boolean | null)[]) => ({ id, name: id, live, ways: [], odd: "" });
const map = (...outlets: OverBoard["outlets"]) => ({ outlets }) as unknown as OverBoard;
const tap = (outlet: string, round: number, live: boolean) =>
  ({ body: { kind: "seen", entry: { outlet, round, live } } }) as unknown as Waiting;

test("what is on its way counts as tapped, and never over what the server has", () => {
  const found = withTaps(map(outlet("hall", true, null), outlet("loft", null, null)), [
    tap("hall", 1, false),
    tap("loft", 1, false),
  ]);
  expect(found.map((one) => one.live)).toEqual([
    [true, null],
    [false, null],
  ]);
});

test("a round lasts until every outlet was looked at", () => {
  expect(roundNow([outlet("hall", true, null), outlet("loft", null, null)])).toBe(1);
  expect(roundNow([outlet("hall", true, null), outlet("loft", false, null)])).toBe(2);
  expect(roundNow([outlet("hall", true, true), outlet("loft", false, false)])).toBe(null);
  expect(roundNow([])).toBe(null);
});

test("what is taken back or marked is no tap", () => {
  const back = { body: { kind: "taken-back", entry: { event: "x" } } } as unknown as Waiting;
  expect(withTaps(map(outlet("hall", null)), [back])[0]?.live).toEqual([null]);
});
