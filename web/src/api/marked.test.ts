import { describe, expect, it } from "vitest";
import { marked } from "./marked";

describe("marks of a case", () => {
  it("strike out and take back, one at a time, in the order they were tapped", () => {
    expect(marked([], "a")).toEqual(["a"]);
    expect(marked(["a"], "b")).toEqual(["a", "b"]);
    expect(marked(["a", "b"], "a")).toEqual(["b"]);
  });

  it("twice is as before, and nothing that was marked is changed in its place", () => {
    const before = ["a", "c"];
    expect(marked(marked(before, "b"), "b")).toEqual(before);
    marked(before, "a");
    expect(before).toEqual(["a", "c"]);
  });
});
