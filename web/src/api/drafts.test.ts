import { beforeEach, expect, it, vi } from "vitest";

const kept = new Map<string, string>();
const storage = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => void kept.set(key, value),
  removeItem: (key: string) => void kept.delete(key),
  key: (i: number) => [...kept.keys()][i] ?? null,
  get length() {
    return kept.size;
  },
};
vi.stubGlobal("localStorage", storage);
const { draftOf, forgetDrafts, keepDraft } = await import("./drafts");

beforeEach(() => kept.clear());

it("comes back to its own place and to no other", () => {
  keepDraft("bench p1", { typed: "119." });
  expect(draftOf("bench p1")).toEqual({ typed: "119." });
  expect(draftOf("bench p2")).toBeNull();
  keepDraft("bench p1", null);
  expect(draftOf("bench p1")).toBeNull();
});

it("goes with whoever signs out, and nothing else does", () => {
  kept.set("even-probe.last-bench", "p1");
  keepDraft("bench p1", "119");
  keepDraft("sheet s1", { measured_ohm: "0." });
  forgetDrafts();
  expect([...kept.keys()]).toEqual(["even-probe.last-bench"]);
});

it("is none where what was kept cannot be read, or the browser keeps nothing", () => {
  kept.set("even-probe.draft bench p1", "{broken");
  expect(draftOf("bench p1")).toBeNull();
  vi.spyOn(storage, "setItem").mockImplementationOnce(() => {
    throw new Error("full");
  });
  expect(() => keepDraft("bench p1", "119")).not.toThrow();
});
