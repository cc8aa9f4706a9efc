import { notifyManager, QueryClient, QueryObserver } from "@tanstack/react-query";
import { expect, test, vi } from "vitest";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
const { Attempts, showAnswer } = await import("./useRecord");

test("what is sent again after a failure is the same record, at the time it was first tried", () => {
  const attempts = new Attempts();
  const first = attempts.of({ value: 120 });
  expect(attempts.of({ value: 120 })).toEqual(first);
  expect(attempts.of({ value: 121 }).id).not.toBe(first.id);
  expect(attempts.of({ value: 120 })).toEqual(first);
});

test("what is there already is written again as another", () => {
  const attempts = new Attempts();
  const first = attempts.of(undefined);
  attempts.done(undefined);
  expect(attempts.of(undefined).id).not.toBe(first.id);
});

/** `useQuery` hears of its data in batches: so does this. */
test("an answer is shown when whoever shows it was told, so that what waited can go", async () => {
  const queries = new QueryClient();
  const shown: unknown[] = [];
  const shows = new QueryObserver<object>(queries, { queryKey: ["hunt", 1], enabled: false });
  shows.subscribe(notifyManager.batchCalls(({ data }) => shown.push(data)));
  await showAnswer(queries, { shows: () => ["hunt", 1], changes: () => [] }, { taps: 2 });
  expect(shown.at(-1)).toEqual({ taps: 2 });
});
