import { afterEach, expect, test, vi } from "vitest";

const told = new Map<string, () => void>();
vi.stubGlobal("window", { addEventListener: (name: string, act: () => void) => told.set(name, act) });
vi.stubGlobal("navigator", { onLine: true });
const { lineAnswered, lineCutOffSince, lineFailed, watchLine } = await import("./line");

afterEach(() => lineAnswered());

test("a line is up until something fails", () => {
  expect(lineCutOffSince()).toBeNull();
});

test("it is cut off since the first failure, not since the last", () => {
  vi.useFakeTimers({ now: 1_000 });
  lineFailed();
  vi.setSystemTime(9_000);
  lineFailed();
  expect(lineCutOffSince()).toBe(1_000);
  vi.useRealTimers();
});

test("only an answer says that it is back", () => {
  lineFailed();
  expect(lineCutOffSince()).not.toBeNull();
  lineAnswered();
  expect(lineCutOffSince()).toBeNull();
});

test("whoever watches is told when it comes and goes, and of nothing else", () => {
  const seen = vi.fn();
  const stop = watchLine(seen);
  lineAnswered();
  expect(seen).not.toHaveBeenCalled();
  lineFailed();
  lineFailed();
  lineAnswered();
  expect(seen).toHaveBeenCalledTimes(2);
  stop();
  lineFailed();
  expect(seen).toHaveBeenCalledTimes(2);
});

test("a browser that says it is offline is believed at once", () => {
  told.get("offline")?.();
  expect(lineCutOffSince()).not.toBeNull();
});
