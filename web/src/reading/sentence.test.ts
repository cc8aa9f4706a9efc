import { expect, test } from "vitest";
import { sentence } from "./sentence";

test("a sentence begins with a capital whatever is named in it", () => {
  expect(sentence("the panel")).toBe("The panel");
  expect(sentence("")).toBe("");
});
