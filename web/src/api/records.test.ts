import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { beforeEach, expect, test, vi } from "vitest";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
const records = await import("./records");
const { keys } = await import("./keys");
const { showRecord } = await import("./useRecord");

import type { Bench, Proof, Round, Sheet, Site } from "./client";

let queries: QueryClient;
const stale = (key: readonly unknown[]) => queries.getQueryState(key)?.isInvalidated;

beforeEach(() => {
  queries = new QueryClient();
});

test("what a write answered is what is shown from then on", async () => {
  queries.setQueryData(keys.bench("p1"), { id: "p1", verdict: "before" });
  const bench = { id: "p1", site: { id: "s1" } } as unknown as Bench;
  await showRecord(queries, records.BENCH, bench);
  expect(queries.getQueryData(keys.bench("p1"))).toEqual(bench);
});

test("an answer asked for before the write does not come over it", async () => {
  let slow = (_: unknown) => {};
  const asked = queries.fetchQuery({
    queryKey: keys.proof("x"),
    queryFn: () => new Promise((answer) => (slow = answer)),
  });
  asked.catch(() => {});
  const after = { id: "x", state: "closed" } as unknown as Proof;
  await showRecord(queries, records.PROOF, after);
  slow({ id: "x", state: "proving" });
  await Promise.resolve();
  expect(queries.getQueryData(keys.proof("x"))).toEqual(after);
});

test("what depends on a reading is asked for again, and nothing else", async () => {
  for (const key of [keys.site("s1"), keys.site("s2"), keys.rounds, keys.round("r"), keys.today, keys.proofs])
    queries.setQueryData(key, {});
  await showRecord(queries, records.BENCH, { id: "p1", site: { id: "s1" } } as unknown as Bench);
  expect([keys.site("s1"), keys.rounds, keys.round("r"), keys.today].map(stale)).toEqual([
    true,
    true,
    true,
    true,
  ]);
  expect([keys.site("s2"), keys.proofs].map(stale)).toEqual([false, false]);
});

test("the rest of an answer is asked for when it is drawn, before what depends on it", async () => {
  let arrives = () => {};
  const rest = vi.fn(() => new Promise<void>((done) => (arrives = done)));
  queries.setQueryData(keys.sites, []);
  const bench = { ...records.BENCH, rest: () => rest, changes: () => [keys.sites] };
  await showRecord(queries, bench, { id: "p1" } as Bench);
  expect([rest.mock.calls.length, queries.getQueryData(keys.bench("p1"))]).toEqual([0, { id: "p1" }]);
  await vi.waitFor(() => expect(rest).toHaveBeenCalled());
  expect(stale(keys.sites)).toBe(false);
  arrives();
  await vi.waitFor(() => expect(stale(keys.sites)).toBe(true));
});

test("more follows only where a point says so", () => {
  const of = (to_follow: boolean) => records.BENCH.rest?.({ id: "p1", to_follow } as Bench);
  expect([of(false), typeof of(true)]).toEqual([null, "function"]);
});

test("dead tests change what a Bench and a site show of their points, whichever they are", async () => {
  for (const key of [keys.bench("p1"), keys.bench("p2"), keys.site("s1"), keys.sheets])
    queries.setQueryData(key, {});
  await showRecord(queries, records.SHEET, { id: "a" } as unknown as Sheet);
  expect([keys.bench("p1"), keys.bench("p2"), keys.site("s1"), keys.sheets].map(stale)).not.toContain(false);
});

test("a round and a site show their own answer", async () => {
  await showRecord(queries, records.ROUND, { id: "r" } as unknown as Round);
  await showRecord(queries, records.SITE, { id: "s" } as unknown as Site);
  expect(queries.getQueryData(keys.round("r"))).toEqual({ id: "r" });
  expect(queries.getQueryData(keys.site("s"))).toEqual({ id: "s" });
});

test("what was added to a list is in the list before anybody is told that it is there", async () => {
  let inTheList = ["van"];
  const list = new QueryObserver(queries, { queryKey: keys.equipment, queryFn: async () => inTheList });
  const stop = list.subscribe(() => {});
  await list.refetch();
  inTheList = ["van", "stall"];
  await showRecord(queries, records.EQUIPMENT, { id: "stall" });
  expect(queries.getQueryData(keys.equipment)).toEqual(["van", "stall"]);
  stop();
});

test("after a survey was brought in nothing that was shown is sure", async () => {
  for (const key of [keys.today, keys.bench("p1"), keys.testers]) queries.setQueryData(key, {});
  await showRecord(queries, records.SURVEY, {});
  expect([keys.today, keys.bench("p1"), keys.testers].map(stale)).not.toContain(false);
});

test("what was judged while it was typed is judged again when the sheet knows more", async () => {
  const judged = keys.judged("sheet1", "line", null, null);
  queries.setQueryData(judged, { result: "fail" });
  await showRecord(queries, records.SHEET, { id: "sheet1" } as unknown as Sheet);
  expect(stale(judged)).toBe(true);
});
