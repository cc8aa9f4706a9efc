import { expect, test } from "vitest";
import type { Site } from "../../api/client";
import { contactChoices } from "./contacts";
import { roomsOf } from "./rooms";

test("a supply of one line offers no contacts of several", () => {
  expect(Object.values(contactChoices(["L"])).flat()).not.toContain("L2");
});

test("two lines offer them with and without a neutral", () => {
  const choices = contactChoices(["L1", "L2"]);
  expect(choices["Two lines, neutral, earth"]).toEqual(["L1", "L2", "N", "PE"]);
  expect(choices["Two lines, earth"]).toEqual(["L1", "L2", "PE"]);
  expect(Object.keys(choices).join()).not.toContain("Three");
});

test("three lines offer everything, one line first, and every choice has an earth", () => {
  const choices = contactChoices(["L1", "L2", "L3"]);
  expect(Object.keys(choices)[0]).toBe("One line, neutral, earth");
  expect(choices["Three lines, neutral, earth"]).toEqual(["L1", "L2", "L3", "N", "PE"]);
  for (const contacts of Object.values(choices)) expect(contacts).toContain("PE");
});

const site = (...rooms: string[]) =>
  ({
    supplies: [{ boards: [{ circuits: [{ points: rooms.map((room) => ({ room })) }] }] }],
  }) as unknown as Site;

test("rooms are named once each, in order, and a point in none is in none", () => {
  expect(roomsOf(site("Workshop", "", "Kitchenette", "Workshop"))).toEqual(["Kitchenette", "Workshop"]);
  expect(roomsOf({ supplies: [] } as unknown as Site)).toEqual([]);
});
