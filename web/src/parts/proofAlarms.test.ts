import { expect, test } from "vitest";
import { alarmsDue, type Running } from "./proofAlarms";

const NOW = Date.parse("2026-11-24T10:00:00Z");
const asked = { at: NOW, tick: 0 };
const after = (minutes: number) => ({ at: NOW + minutes * 60_000, tick: minutes * 60_000 });
const running = (id: string, minutes: number, state: Running["state"] = "proved-dead"): Running => ({
  id,
  name: `Circuit ${id}`,
  state,
  now: "2026-11-24T10:00:00Z",
  expires_at: new Date(NOW + minutes * 60_000).toISOString(),
  warn_at: new Date(NOW + (minutes - 5) * 60_000).toISOString(),
});

test("five minutes before its end and at its end, once each, and not before", () => {
  const told = new Set<string>();
  const proofs = [running("a", 12)];
  const due = (minutes: number) => alarmsDue(proofs, asked, told, after(minutes)).map((a) => a.ms);
  expect([due(0), due(6.9)]).toEqual([[], []]);
  expect([due(7), due(7.1), due(11.9)]).toEqual([[5 * 60_000], [], []]);
  expect([due(12), due(13)]).toEqual([[0], []]);
});

test("what is left is what is left, however late it is first seen", () => {
  expect(alarmsDue([running("a", 12)], asked, new Set(), after(11.5))).toMatchObject([{ ms: 30_000 }]);
});

test("a proof that is renewed is told of again at its new end", () => {
  const told = new Set<string>();
  expect(alarmsDue([running("a", 4)], asked, told, after(0))).toHaveLength(1);
  expect(alarmsDue([running("a", 30)], asked, told, after(1))).toHaveLength(0);
  expect(alarmsDue([running("a", 30)], asked, told, after(26))).toMatchObject([{ ms: 4 * 60_000 }]);
});

test("nothing is told of what does not run", () => {
  const stopped = (["void", "closed", "proving", "history", "energised"] as const).map((s) =>
    running(s, 1, s),
  );
  const endless = { ...running("x", 1), expires_at: null };
  expect(alarmsDue([...stopped, endless], asked, new Set(), after(2))).toEqual([]);
});

test("each of several is told of by its own name, also with the clock of the device an hour off", () => {
  const off = { at: NOW + 3_600_000, tick: 0 };
  const now = { at: NOW + 3_600_000 + 60_000, tick: 60_000 };
  const found = alarmsDue([running("a", 0.5), running("b", 3), running("c", 20)], off, new Set(), now);
  expect(found.map((a) => [a.name, a.ms > 0])).toEqual([
    ["Circuit a", false],
    ["Circuit b", true],
  ]);
});
