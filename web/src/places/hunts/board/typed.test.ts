import { expect, test } from "vitest";
import { boardOf, NOTHING_TYPED, waysOf } from "./typed";

const onRecord = [
  { id: "1f", name: "Kitchenette" },
  { id: "2e", name: "Dome" },
];

test("ways that are not on record are counted on from those that are", () => {
  const ways = waysOf(onRecord, { ...NOTHING_TYPED, more: "2" });
  expect(ways.map((way) => way.name)).toEqual(["Kitchenette", "Dome", "Way 3", "Way 4"]);
  expect(waysOf(onRecord, { ...NOTHING_TYPED, more: "many" })).toHaveLength(2);
  expect(waysOf(onRecord, { ...NOTHING_TYPED, more: "-3" })).toHaveLength(2);
});

test("outlets are lines with something in them; what stays is by id, or by name where there is none", () => {
  const typed = {
    more: "1",
    outlets: " Hall \n\nStairs",
    fixed: { "1f": "on", "Way 3": "off", "Way 9": "off" },
  };
  expect(boardOf(onRecord, typed as typeof NOTHING_TYPED)).toEqual({
    ways: ["Way 3"],
    outlets: ["Hall", "Stairs"],
    fixed_on: ["1f"],
    fixed_off: ["Way 3"],
  });
});
