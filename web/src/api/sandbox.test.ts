import { expect, test } from "vitest";
import { caseIn, keptAs } from "./sandbox";

const ID = "2590ebb1-0b71-4b02-bf79-b98684394c2a";

test("a case is in the address of every place inside it, and of none outside", () => {
  for (const inside of [`/practice/${ID}`, `/practice/${ID}/`, `/practice/${ID}/bench/p1`])
    expect(caseIn(inside)).toBe(ID);
  for (const outside of [
    "/practice",
    "/practice/",
    "/bench/p1",
    `/bench/practice/${ID}`,
    `/practice/${ID}x/bench`,
  ])
    expect(caseIn(outside)).toBeNull();
});

test("what a browser keeps of a case is kept apart from the record's, and from another case's", () => {
  const kept = [keptAs(".draft ", null), keptAs(".draft ", ID), keptAs(".draft ", ID.replace("2", "3"))];
  expect(new Set(kept).size).toBe(3);
  expect(kept[0]).toBe("even-probe.draft ");
});
