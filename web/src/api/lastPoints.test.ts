import { beforeEach, expect, it, vi } from "vitest";
import { forgetPoint, forgetPoints, lastPoints, rememberPoint } from "./lastPoints";

const kept = new Map<string, string>();
beforeEach(() => kept.clear());
vi.stubGlobal("localStorage", {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
});

it("has each point once, the newest first, and not for ever", () => {
  for (const id of ["a", "b", "a", "c", "d", "e", "f", "g"]) rememberPoint(id);
  expect(lastPoints()).toEqual(["g", "f", "e", "d", "c", "a"]);
  forgetPoint("e");
  expect(lastPoints()).toEqual(["g", "f", "d", "c", "a"]);
  forgetPoints();
  expect(lastPoints()).toEqual([]);
});

it("takes what it cannot read for nothing", () => {
  kept.set("even-probe.last-points", "p3");
  expect(lastPoints()).toEqual([]);
});
