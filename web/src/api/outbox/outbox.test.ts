import { describe, expect, it, vi } from "vitest";
import { begin, bench, browser, ids, one, refusal, sent, server, settled } from "./testing";

const { withWaiting } = await import("./waiting");

import type { Reading } from "../client";

describe("a record that is there", () => {
  it("counts as taken until all that shows it does, and is not sent again", async () => {
    const { calls, send } = server();
    const store = browser();
    let everywhere = () => {};
    const outbox = await begin(send, store, () => new Promise<void>((done) => (everywhere = done)));
    outbox.add(one("a"));
    await settled();
    calls[0]?.answer(bench);
    await settled();
    expect(outbox.all()).toMatchObject([{ id: "a", arrived: true }]);
    expect(await store.all("crew anna")).toEqual([]);
    outbox.next();
    outbox.add(one("b"));
    await settled();
    expect(calls.map((c) => c.id)).toEqual(["a", "b"]);
    everywhere();
    await settled();
    expect(ids(outbox.all())).toEqual(["b"]);
  });

  it("is not left for ever where nobody can be told", async () => {
    const { calls, send } = server();
    const outbox = await begin(send, browser(), () => Promise.reject(new Error("no line")));
    outbox.add(one("a"));
    await settled();
    calls[0]?.answer(bench);
    await settled();
    expect(outbox.all()).toEqual([]);
  });
});

describe("what is on its way", () => {
  it("is on the screen at once, and sent in order, one at a time", async () => {
    const { calls, send } = server();
    const outbox = await begin(send);
    for (const id of ["a", "b", "c"]) outbox.add(one(id));
    expect(ids(outbox.all())).toEqual(["a", "b", "c"]);
    await settled();
    expect(calls.map((c) => c.id)).toEqual(["a"]);
    calls[0]?.answer(bench);
    await settled();
    calls[1]?.answer(bench);
    await settled();
    expect(calls.map((c) => c.id)).toEqual(["a", "b", "c"]);
    expect(sent).toEqual(["a", "b"]);
    expect(ids(outbox.all())).toEqual(["c"]);
  });

  it("says what the server says of itself, and is tried again", async () => {
    const { calls, send } = server();
    const store = browser();
    const outbox = await begin(send, store);
    outbox.add(one("a"));
    await settled();
    calls[0]?.refuse(refusal(507, "The server's disk is full."));
    await settled();
    expect(outbox.all()).toMatchObject([{ id: "a", problem: "", held: "The server's disk is full." }]);
    expect((await store.all("crew anna"))[0]).not.toHaveProperty("held");
    outbox.next();
    await settled();
    calls[1]?.answer(bench);
    await settled();
    expect(outbox.all()).toEqual([]);
  });

  it.each([0, 401, 429, 503, 507])(
    "is kept where the server cannot take it now (%i) and tried again by itself",
    async (status) => {
      const { calls, send } = server();
      const outbox = await begin(send);
      outbox.add(one("a"));
      outbox.add(one("b"));
      await settled();
      calls[0]?.refuse(refusal(status));
      await settled();
      expect(outbox.all().map((w) => [w.id, w.problem])).toEqual([
        ["a", ""],
        ["b", ""],
      ]);
      vi.advanceTimersByTime(3_000);
      await settled();
      expect(calls.map((c) => c.id)).toEqual(["a", "a"]);
    },
  );

  it("is sent at once when the line is back", async () => {
    const { calls, send } = server();
    const outbox = await begin(send);
    outbox.add(one("a"));
    await settled();
    calls[0]?.refuse(refusal(0));
    await settled();
    outbox.next();
    await settled();
    expect(calls).toHaveLength(2);
    vi.advanceTimersByTime(10_000);
    await settled();
    expect(calls).toHaveLength(2);
  });

  it.each([409, 422, 500])(
    "stays with why where it is refused (%i), and the next goes on",
    async (status) => {
      const { calls, send } = server();
      const store = browser();
      const outbox = await begin(send, store);
      outbox.add(one("a", 11_980));
      outbox.add(one("b"));
      await settled();
      calls[0]?.refuse(refusal(status));
      await settled();
      expect(outbox.all()[0]).toMatchObject({ id: "a", problem: "more than this tester shows" });
      expect(await store.all("crew anna")).toMatchObject([
        { id: "a", problem: "more than this tester shows" },
        { id: "b" },
      ]);
      expect(calls.map((c) => c.id)).toEqual(["a", "b"]);
      calls[1]?.answer(bench);
      await settled();
      outbox.again("a");
      await settled();
      expect(calls.map((c) => c.id)).toEqual(["a", "b", "a"]);
      calls[2]?.refuse(refusal(status));
      await settled();
      outbox.drop("a");
      await settled();
      expect(outbox.all()).toEqual([]);
      expect(await store.all("crew anna")).toEqual([]);
    },
  );

  it("counts as taken, and what is refused or is no reading does not", () => {
    const readings = [{ id: "r", entry: {}, status: "counts" } as unknown as Reading];
    const list = [
      { ...one("a"), at: "", problem: "" },
      { ...one("b"), at: "", problem: "no" },
      { ...one("r"), at: "", problem: "" },
      { ...one("w"), at: "", problem: "", kind: "withdrawal" as const },
    ];
    expect(withWaiting(readings, list).map((r) => r.id)).toEqual(["r", "a"]);
  });
});
