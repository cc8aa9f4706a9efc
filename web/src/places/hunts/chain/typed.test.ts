import { expect, test } from "vitest";
import { chainOf, EMPTY_ELEMENT, isTyped } from "./typed";

test("a chain as typed: numbers are numbers, a coil has a rating where one was typed, no number is sent as it is", () => {
  const elements = [
    { ...EMPTY_ELEMENT, id: " stop ", closed: false, rated: "24" },
    { ...EMPTY_ELEMENT, id: "k1", kind: "coil" as const, rated: "230" },
    { ...EMPTY_ELEMENT, id: "k2", kind: "coil" as const },
  ];
  expect(chainOf({ supply: "229,5", elements })).toEqual({
    supply_v: 229.5,
    elements: [
      { id: "stop", kind: "contact", closed: false },
      { id: "k1", kind: "coil", closed: true, rated_v: 230 },
      { id: "k2", kind: "coil", closed: true },
    ],
  });
  expect(chainOf({ supply: "mains", elements: [] }).supply_v).toBe("mains");
});

test("a chain is typed once the feed has volts and every element a name", () => {
  const stop = { ...EMPTY_ELEMENT, id: "stop" };
  expect(isTyped({ supply: "230", elements: [stop] })).toBe(true);
  expect(isTyped({ supply: " ", elements: [stop] })).toBe(false);
  expect(isTyped({ supply: "230", elements: [stop, EMPTY_ELEMENT] })).toBe(false);
});
