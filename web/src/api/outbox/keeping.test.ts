import { describe, expect, it, vi } from "vitest";
import { aPage, atOnce, begin, bench, browser, ids, one, refusal, server, settled } from "./testing";

const { Journal } = await import("./journal");
const { Outbox } = await import("./outbox");

import type { InTurn } from "./outbox";

describe("what waits", () => {
  it("outlives a closed browser, in its order and with what was typed, for its person and nobody else", async () => {
    const store = browser();
    const before = await begin(server().send, store);
    for (const id of ["c", "a", "b"]) before.add({ ...one(id), typed: { value: "119.8" } });
    await settled();
    const after = server();
    const outbox = new Outbox(after.send, atOnce, store);
    await outbox.of("crew berta");
    await settled();
    expect([outbox.all(), after.calls]).toEqual([[], []]);
    await outbox.of("crew anna");
    await settled();
    expect(ids(outbox.all())).toEqual(["c", "a", "b"]);
    expect(outbox.all()[0]?.typed).toEqual({ value: "119.8" });
    expect(after.calls.map((c) => c.id)).toEqual(["c"]);
  });

  it("is not lost where it is under way while somebody else signs in", async () => {
    const { calls, send } = server();
    const outbox = await begin(send);
    outbox.add(one("a"));
    await settled();
    await outbox.of("crew berta");
    calls[0]?.refuse(refusal(0));
    await settled();
    expect(outbox.all()).toEqual([]);
    await outbox.of("crew anna");
    await settled();
    expect(ids(outbox.all())).toEqual(["a"]);
  });

  it("keeps what was recorded while it was still being read", async () => {
    const store = browser();
    (await begin(server().send, store)).add(one("a"));
    await settled();
    const outbox = new Outbox(server().send, atOnce, store);
    const reading = outbox.of("crew anna");
    expect(outbox.isRead()).toBe(false);
    outbox.add(one("b"));
    await reading;
    expect(outbox.isRead()).toBe(true);
    await settled();
    expect(ids(outbox.all())).toEqual(["a", "b"]);
    expect(ids(await store.all("crew anna"))).toEqual(["a", "b"]);
  });

  it("keeps what was recorded and put away while the rest was still being read, and sends it", async () => {
    const { calls, send } = server();
    let read = () => {};
    const store = browser();
    const readAtOnce = store.all.bind(store);
    store.all = async (person) => {
      const kept = await readAtOnce(person);
      await new Promise<void>((done) => (read = done));
      return kept;
    };
    const outbox = new Outbox(send, atOnce, store);
    const opening = outbox.of("crew anna");
    await settled();
    outbox.add(one("a"));
    outbox.add(one("b"));
    await settled();
    read();
    await opening;
    await settled();
    expect(ids(outbox.all())).toEqual(["a", "b"]);
    calls[0]?.answer(bench);
    await settled();
    expect(calls.map((call) => call.id)).toEqual(["a", "b"]);
  });

  it("is not lost where the page was left before the database had answered", async () => {
    const { noted, page } = aPage();
    const store = browser();
    const neverAnswers = () => new Promise<never>(() => {});
    const left = new Outbox(
      server().send,
      atOnce,
      { all: async () => [], put: neverAnswers, has: async () => true, drop: neverAnswers },
      undefined,
      undefined,
      new Journal(page),
    );
    await left.of("crew anna");
    for (const id of ["a", "b"]) left.add(one(id));
    const opened = new Outbox(server().send, atOnce, store, undefined, undefined, new Journal(page));
    await opened.of("crew berta");
    expect(opened.all()).toEqual([]);
    await opened.of("crew anna");
    await settled();
    expect(ids(opened.all())).toEqual(["a", "b"]);
    expect(ids(await store.all("crew anna"))).toEqual(["a", "b"]);
    expect(noted.size).toBe(0);
  });

  it("is never another's: whose name begins alike, or who signs in where nothing could be kept", async () => {
    const { noted, page } = aPage();
    const forbidden = () => Promise.reject(new Error("no room"));
    const noRoom = { all: forbidden, put: forbidden, has: forbidden, drop: forbidden };
    const shared = new Outbox(server().send, atOnce, noRoom, undefined, undefined, new Journal(page));
    await shared.of("anna b");
    shared.add(one("a"));
    await settled();
    await shared.of("berta");
    shared.add(one("b"));
    await settled();
    for (const [person, own] of [
      ["anna", []],
      ["berta", ["b"]],
      ["anna b", ["a"]],
    ] as const) {
      const opened = new Outbox(server().send, atOnce, browser(), undefined, undefined, new Journal(page));
      await opened.of(person);
      await settled();
      expect(ids(opened.all())).toEqual(own);
    }
    expect(noted.size).toBe(0);
  });

  it("is not noted for ever where it was sent and could not be taken out of the database", async () => {
    const { noted, page } = aPage();
    const forbidden = () => Promise.reject(new Error("no room"));
    const noRoom = { all: forbidden, put: forbidden, has: forbidden, drop: forbidden };
    const { calls, send } = server();
    const outbox = new Outbox(send, atOnce, noRoom, undefined, undefined, new Journal(page));
    await outbox.of("anna");
    outbox.add(one("a"));
    await settled();
    expect(noted.size).toBe(1);
    calls[0]?.answer(bench);
    await settled();
    expect(noted.size).toBe(0);
  });

  it("goes on where the lock between tabs cannot be had", async () => {
    const store = browser();
    (await begin(server().send, store)).add(one("a"));
    await settled();
    const { calls, send } = server();
    let broken = true;
    const inTurn: InTurn = (work) => (broken ? Promise.reject(new Error("no lock")) : work());
    await begin(send, store, atOnce, inTurn);
    await settled();
    expect(calls).toHaveLength(0);
    broken = false;
    vi.advanceTimersByTime(3_000);
    await settled();
    expect(calls.map((c) => c.id)).toEqual(["a"]);
  });

  it.each(["held", "broken"])("is on its way at once, once, while the lock is %s", async (lock) => {
    const { calls, send } = server();
    let letGo = () => {};
    const held = new Promise<void>((free) => (letGo = free));
    const inTurn: InTurn = (work) =>
      lock === "broken" ? Promise.reject(new Error("no lock")) : held.then(work);
    const outbox = await begin(send, browser(), atOnce, inTurn);
    outbox.add(one("a"));
    await settled();
    expect(calls.map((c) => c.id)).toEqual(["a"]);
    calls[0]?.answer(bench);
    letGo();
    await settled();
    expect([outbox.all(), calls.length]).toEqual([[], 1]);
  });

  it("keeps the reason of a refusal that came before it was kept", async () => {
    const store = browser();
    const { calls, send } = server();
    const outbox = await begin(send, store);
    outbox.add(one("a"));
    outbox.add(one("b"));
    calls[0]?.refuse(refusal(422));
    await settled();
    calls[0]?.refuse(refusal(422));
    await settled();
    expect((await store.all("crew anna")).map((w) => [w.id, w.problem])).toEqual([
      ["a", "more than this tester shows"],
      ["b", ""],
    ]);
  });

  it("is sent all the same where the browser keeps nothing, and that is said", async () => {
    const forbidden = () => Promise.reject(new Error("no room"));
    const { calls, send } = server();
    const outbox = await begin(send, { all: forbidden, put: forbidden, has: forbidden, drop: forbidden });
    outbox.add(one("a"));
    await settled();
    expect(outbox.isForgetful()).toBe(true);
    expect(calls).toHaveLength(1);
    calls[0]?.answer(bench);
    await settled();
    expect(outbox.all()).toEqual([]);
  });
});

describe("two tabs", () => {
  /** What the browser gives both: a lock, and word of every change. */
  async function tabs() {
    const store = browser();
    const { calls, send } = server();
    let turn = Promise.resolve();
    const inTurn: InTurn = (work) => {
      turn = turn.then(work);
      return turn;
    };
    const both: InstanceType<typeof Outbox>[] = [];
    const tab = () =>
      new Outbox(send, atOnce, store, inTurn, () => {
        for (const other of both) void other.refresh();
      });
    both.push(tab(), tab());
    for (const made of both) await made.of("crew anna");
    return { calls, tabs: both };
  }

  it("show the same, and each record is sent by one of them", async () => {
    const { calls, tabs: both } = await tabs();
    both[0]?.add(one("a"));
    both[1]?.add(one("b"));
    await settled();
    expect(ids(both[0]?.all() ?? []).sort()).toEqual(["a", "b"]);
    expect(ids(both[1]?.all() ?? []).sort()).toEqual(["a", "b"]);
    for (let i = 0; i < 4; i++) {
      calls[i]?.answer(bench);
      await settled();
    }
    expect(calls.map((c) => c.id).sort()).toEqual(["a", "b"]);
    expect(both.map((tab) => tab.all())).toEqual([[], []]);
  });

  it("drop in one what is dropped in the other", async () => {
    const { calls, tabs: both } = await tabs();
    both[0]?.add(one("a"));
    await settled();
    calls[0]?.refuse(refusal(422));
    await settled();
    expect(both[1]?.all()[0]).toMatchObject({ problem: "more than this tester shows" });
    both[1]?.drop("a");
    await settled();
    expect(both[0]?.all()).toEqual([]);
  });
});
