import { describe, expect, it } from "vitest";
import type { EventEntry, Proof } from "../../api/client";
import type { Waiting } from "../../api/outbox/waiting";
import { mayEnd, stepsLeft, unsentOf } from "./ahead";

const step = (step: string, more: object = {}) =>
  ({ step, text: step, source: null, from: null, to: null, mode: null, tester: null, ...more }) as never;
const pair = (from: string, to: string) => step("test", { from, to, mode: "ac" });
const state = {
  next: step("lock", { source: "s1" }),
  ahead: [step("prove"), pair("L", "N"), pair("L", "PE"), pair("N", "PE"), step("prove-again")],
} as unknown as Proof["state"];
const locked: EventEntry = { type: "locked", source: "s1", lock: "K-07" };
const proved: EventEntry = { type: "proved", shows_v: 239 };
const tested = (from: "L" | "N" | "PE", to: "L" | "N" | "PE"): EventEntry => ({
  type: "tested",
  from,
  to,
  shows_v: 0,
});
const names = (unsent: EventEntry[]) =>
  stepsLeft(state, unsent).map((s) => `${s.step} ${s.from ?? ""}`.trim());

describe("what is left of a proof while nothing can be sent", () => {
  it("is what the server says is ahead", () => {
    expect(names([])).toEqual(["lock", "prove", "test L", "test L", "test N", "prove-again"]);
  });

  it("goes on with each event, in its order or out of it, whichever way round the leads were", () => {
    expect(names([locked, proved])).toEqual(["test L", "test L", "test N", "prove-again"]);
    expect(names([locked, proved, tested("PE", "N")])).toEqual(["test L", "test L", "prove-again"]);
    const all = [locked, proved, tested("L", "N"), tested("L", "PE"), tested("N", "PE"), proved];
    expect(names(all)).toEqual([]);
  });

  it("is not changed by what does none of the steps", () => {
    expect(names([{ type: "screened", alarm: false }, { type: "returned" }])).toHaveLength(6);
    expect(names([{ type: "off", source: "s9" }, tested("L", "L")])).toHaveLength(6);
  });

  it.each(["handed-over", "unlocked", "re-energised", "source-found", "prove-failed", "closed"] as const)(
    "is not known after %s, which may have ended it",
    (type) => {
      expect(names([locked, { type }])).toEqual([]);
      expect(mayEnd([locked, { type }])).toBe(true);
    },
  );

  it("is not known after an alarm of a detector", () => {
    expect(mayEnd([{ type: "screened", alarm: true }])).toBe(true);
    expect(mayEnd([{ type: "screened", alarm: false }, locked, proved])).toBe(false);
  });
});

it("leaves out what the proof shows already: a proof of the tester is one of two", () => {
  const waiting = [{ id: "e1", body: { entry: proved } }] as Waiting[];
  const known = (events: { id: string }[]) => ({ events }) as Proof;
  expect(unsentOf(known([]), waiting)).toEqual([proved]);
  expect(unsentOf(known([{ id: "e1" }]), waiting)).toEqual([]);
});
