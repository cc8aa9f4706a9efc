import { expect, test } from "vitest";
import type { Reference, Site } from "../../api/client";
import tables from "../../api/reference.json";
import { contactChoices } from "./contacts";
import { roomsOf } from "./rooms";

const british = (tables as unknown as Reference).practices.find((p) => p.id === "british");

test("the contacts of a supply are those its practice has on it, by name", () => {
  expect(contactChoices(british, "230")).toMatchObject({ "Line, neutral, earth": ["L", "N", "PE"] });
  expect(Object.keys(contactChoices(british, "230/400"))).toContain("Three lines, neutral, earth");
});

test("of a supply that the practice does not have there is nothing to choose", () => {
  expect(contactChoices(british, "no such supply")).toEqual({});
  expect(contactChoices(undefined, "230")).toEqual({});
});

const site = (...rooms: string[]) =>
  ({
    supplies: [{ boards: [{ circuits: [{ points: rooms.map((room) => ({ room })) }] }] }],
  }) as unknown as Site;

test("rooms are named once each, in order, and a point in none is in none", () => {
  expect(roomsOf(site("Workshop", "", "Kitchenette", "Workshop"))).toEqual(["Kitchenette", "Workshop"]);
  expect(roomsOf({ supplies: [] } as unknown as Site)).toEqual([]);
});
