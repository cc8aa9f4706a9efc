import { expect, test } from "vitest";
import type { Entry, Reference } from "../api/client";
import tables from "../api/reference.json";
import { A_ROD, earthSaid, kindOf } from "./referenceEarth";

const { practices } = tables as unknown as Reference;

test("a reference earth is said in the practice's words, with its name", () => {
  const entry: Entry = {
    quantity: "voltage",
    from: "PE",
    to: "REF",
    reference: "outlet",
    reference_at: "hall",
  };
  for (const practice of practices)
    expect(earthSaid(entry, practice)).toBe(`Another circuit's ${practice.words.outlet}, hall`);
});

test("of a reading that does not say, nothing is said", () => {
  for (const practice of practices) {
    expect(earthSaid({ quantity: "voltage", from: "PE", to: "REF" }, practice)).toBe("");
    expect(kindOf(A_ROD, practice)?.asks_which).toBe(false);
  }
});
