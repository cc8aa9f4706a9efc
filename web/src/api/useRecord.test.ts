import { expect, test, vi } from "vitest";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
const { Attempts } = await import("./useRecord");

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
