import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
const { Refusal } = await import("./client");
const { WaitingReadings, withWaiting } = await import("./waiting");

import type { Bench, Reading } from "./client";
import type { Storage, Waiting } from "./waiting";

const one = (id: string, value = 119.8): Omit<Waiting, "problem"> => ({
  id,
  point: "p",
  body: {
    entry: { quantity: "voltage", value },
    tester: null,
    supersedes: null,
    taken_at: "2026-11-24T10:00:00Z",
  },
  said: `L to N, ${value} V`,
});
const refusal = (status: number, text = "more than this tester shows") =>
  new Refusal(status, [{ path: "value", text }]);
const bench = {} as Bench;

/** A server that answers each call as it is told to. */
function server() {
  const calls: { id: string; answer: (bench: Bench) => void; refuse: (error: unknown) => void }[] = [];
  const send = (waiting: Waiting) =>
    new Promise<Bench>((answer, refuse) => calls.push({ id: waiting.id, answer, refuse }));
  return { calls, send };
}

function memory(): Storage & { kept: Map<string, string> } {
  const kept = new Map<string, string>();
  return {
    kept,
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, value) => void kept.set(key, value),
    removeItem: (key) => void kept.delete(key),
  };
}

const settled = () => vi.advanceTimersByTimeAsync(0);
const sent: string[] = [];
const atOnce = async () => {};
const begin = (
  send: ReturnType<typeof server>["send"],
  storage: Storage | null = null,
  shown: () => Promise<void> = atOnce,
) => {
  const told = (waiting: Waiting) => {
    sent.push(waiting.id);
    return shown();
  };
  const readings = new WaitingReadings(send, told, storage);
  readings.of("crew anna");
  return readings;
};

beforeEach(() => {
  vi.useFakeTimers();
  sent.length = 0;
});
afterEach(() => void vi.useRealTimers());

describe("a reading that is there", () => {
  it("counts as taken until all that shows it does, and is not sent again", async () => {
    const { calls, send } = server();
    const storage = memory();
    let everywhere = () => {};
    const readings = begin(send, storage, () => new Promise<void>((done) => (everywhere = done)));
    readings.add(one("a"));
    calls[0]?.answer(bench);
    await settled();
    expect(readings.all()).toMatchObject([{ id: "a", arrived: true }]);
    expect(storage.kept.size).toBe(0);
    readings.next();
    readings.add(one("b"));
    expect(calls.map((c) => c.id)).toEqual(["a", "b"]);
    everywhere();
    await settled();
    expect(readings.all().map((w) => w.id)).toEqual(["b"]);
  });

  it("is not left for ever where nobody can be told", async () => {
    const { calls, send } = server();
    const readings = begin(send, null, () => Promise.reject(new Error("no line")));
    readings.add(one("a"));
    calls[0]?.answer(bench);
    await settled();
    expect(readings.all()).toEqual([]);
  });
});

describe("readings on their way", () => {
  it("takes the next while the first is under way and sends them in order, one at a time", async () => {
    const { calls, send } = server();
    const readings = begin(send);
    for (const id of ["a", "b", "c"]) readings.add(one(id));
    expect(readings.all().map((w) => w.id)).toEqual(["a", "b", "c"]);
    expect(calls.map((c) => c.id)).toEqual(["a"]);
    calls[0]?.answer(bench);
    await settled();
    calls[1]?.answer(bench);
    await settled();
    expect(calls.map((c) => c.id)).toEqual(["a", "b", "c"]);
    expect(sent).toEqual(["a", "b"]);
    expect(readings.all().map((w) => w.id)).toEqual(["c"]);
  });

  it.each([0, 401, 429, 503])(
    "keeps one the server cannot take now (%i) and tries it again by itself",
    async (status) => {
      const { calls, send } = server();
      const readings = begin(send);
      readings.add(one("a"));
      readings.add(one("b"));
      calls[0]?.refuse(refusal(status));
      await settled();
      expect(readings.all().map((w) => [w.id, w.problem])).toEqual([
        ["a", ""],
        ["b", ""],
      ]);
      await vi.advanceTimersByTimeAsync(3_000);
      expect(calls.map((c) => c.id)).toEqual(["a", "a"]);
    },
  );

  it("sends at once when it is told that the line is back", async () => {
    const { calls, send } = server();
    const readings = begin(send);
    readings.add(one("a"));
    calls[0]?.refuse(refusal(0));
    await settled();
    readings.next();
    expect(calls).toHaveLength(2);
    await vi.advanceTimersByTimeAsync(10_000);
    expect(calls).toHaveLength(2);
  });

  it.each([409, 422, 500])(
    "keeps one that is refused (%i), with why, and goes on with the next",
    async (status) => {
      const { calls, send } = server();
      const readings = begin(send);
      readings.add(one("a", 11_980));
      readings.add(one("b"));
      calls[0]?.refuse(refusal(status));
      await settled();
      expect(readings.all()[0]).toMatchObject({ id: "a", problem: "more than this tester shows" });
      expect(calls.map((c) => c.id)).toEqual(["a", "b"]);
      calls[1]?.answer(bench);
      await settled();
      readings.again("a");
      expect(calls.map((c) => c.id)).toEqual(["a", "b", "a"]);
      calls[2]?.refuse(refusal(status));
      await settled();
      readings.drop("a");
      expect(readings.all()).toEqual([]);
    },
  );

  it("outlives a reload, under the same id, for the person it is of and nobody else", async () => {
    const storage = memory();
    const { send } = server();
    begin(send, storage).add(one("a"));
    const after = server();
    const readings = new WaitingReadings(after.send, atOnce, storage);
    readings.of("crew berta");
    expect(readings.all()).toEqual([]);
    expect(after.calls).toEqual([]);
    readings.of("crew anna");
    expect(after.calls.map((c) => c.id)).toEqual(["a"]);
    after.calls[0]?.answer(bench);
    await settled();
    expect(storage.kept.size).toBe(0);
  });

  it("is not lost where it is under way while somebody else signs in", async () => {
    const storage = memory();
    const { calls, send } = server();
    const readings = begin(send, storage);
    readings.add(one("a"));
    readings.of("crew berta");
    calls[0]?.refuse(refusal(0));
    await settled();
    expect(readings.all()).toEqual([]);
    readings.of("crew anna");
    expect(readings.all().map((w) => w.id)).toEqual(["a"]);
  });

  it("goes on where the browser keeps nothing", () => {
    const { calls, send } = server();
    const forbidden = () => {
      throw new Error("no storage");
    };
    const readings = begin(send, { getItem: forbidden, setItem: forbidden, removeItem: forbidden });
    readings.add(one("a"));
    expect(calls).toHaveLength(1);
  });

  it("counts what is on its way as taken, what is refused as not", () => {
    const readings = [{ id: "r", entry: {}, status: "counts" } as unknown as Reading];
    const list = [
      { ...one("a"), problem: "" },
      { ...one("b"), problem: "no" },
      { ...one("r"), problem: "" },
    ];
    expect(withWaiting(readings, list).map((r) => r.id)).toEqual(["r", "a"]);
  });
});
