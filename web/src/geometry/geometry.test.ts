import { describe, expect, it, test } from "vitest";
import type { Practice, Reference, Story } from "../api/client";
import tables from "../api/reference.json";
import { faceOf, letterAt, probeAt, type Spot } from "./face";
import { columnOf, labelsOf, rungsOf, scaleOf, WIDTH } from "./ladder";
import { spotsOf, HEIGHT as TALL, valueAt, WIDTH as WIDE } from "./pairs";
import { WIDTH as ACROSS, degreesOf, HEIGHT, labelAt, MIDDLE, REACH, type Tip, tipsOf } from "./phasors";

const practices = (tables as unknown as Reference).practices;
const apart = (a: Spot, b: Spot) => Math.hypot(a.x - b.x, a.y - b.y);
const couples = <T>(all: T[]): [T, T][] =>
  all.flatMap((one, i) => all.slice(i + 1).map((other): [T, T] => [one, other]));
const story = (told: Partial<Story>) => ({ title: "Correct", potentials: {}, phasors: {}, ...told }) as Story;

/** Every set of contacts there can be, in every practice. */
const faces = practices.flatMap((practice) =>
  practice.systems.flatMap((system) =>
    system.contacts.flatMap(({ terminals }) =>
      ["outlet", "board", "junction-box"].map((kind): [string, Practice, string[]] => [
        `${practice.id} ${kind} ${terminals.join(" ")}`,
        practice,
        terminals,
      ]),
    ),
  ),
);

describe("a face", () => {
  it.each(faces)("has every contact where a thumb finds it and no other: %s", (name, practice, terminals) => {
    const { at } = faceOf(name.split(" ")[1] ?? "", practice, terminals);
    expect(Object.keys(at).sort()).toEqual([...terminals, "REF"].sort());
    for (const [one, other] of couples(Object.values(at))) expect(apart(one, other)).toBeGreaterThan(48);
    for (const place of Object.values(at)) {
      expect(place.x).toBeGreaterThan(20);
      expect(place.x).toBeLessThan(280);
      expect(letterAt(place).x).toBeGreaterThan(0);
      expect(letterAt(place).x).toBeLessThan(300);
    }
  });

  it("keeps the practice's own outlet, and draws the same contacts in a box as screws", () => {
    for (const practice of practices)
      for (const [terminals, face] of Object.entries(practice.outlets)) {
        expect(faceOf("outlet", practice, terminals.split(" ")).plate).toBe(face.plate);
        expect(faceOf("junction-box", practice, terminals.split(" ")).plate).toBe("strip");
      }
  });

  it("holds a probe beside the sign of an earth that is not on it, and on every other contact", () => {
    const { at } = faceOf("outlet", practices[0] as Practice, ["L", "N", "PE"]);
    for (const [terminal, place] of Object.entries(at))
      expect(apart(probeAt(place), place) > 0).toBe(terminal === "REF");
  });
});

describe("a ladder", () => {
  const floating = story({ potentials: { L: [112, 120, 128], PE: [20, 61, 90], N: [0, 0.4, 1] } });

  it("has the highest conductor first and more volts further up", () => {
    expect(rungsOf(floating).map((r) => r.terminal)).toEqual(["L", "PE", "N"]);
    const { y, foot } = scaleOf([floating], 120, [108, 126], false);
    expect(y(0)).toBe(foot);
    expect(y(120)).toBeLessThan(y(61));
  });

  it.each([true, false])("shows all of it, whatever is highest (short: %s)", (short) => {
    for (const top of [10, 120, 300, 4000]) {
      const high = story({ potentials: { L: [0, top / 2, top] } });
      for (const nominal of [120, 230])
        for (const band of [null, [207, 253]]) {
          const { y, foot } = scaleOf([high], nominal, band, short);
          for (const volts of [0, top, nominal, ...(band ?? [])]) {
            expect(y(volts)).toBeGreaterThanOrEqual(0);
            expect(y(volts)).toBeLessThanOrEqual(foot);
          }
        }
    }
  });

  it("has its columns side by side within the picture", () => {
    for (const count of [1, 2, 3, 4]) {
      const columns = Array.from({ length: count }, (_, i) => columnOf(i, count));
      for (const [one, other] of couples(columns)) expect(other.x - one.x).toBeGreaterThan(one.width * 0.99);
      expect(columns.at(-1)?.x).toBeLessThan(WIDTH);
    }
  });

  it("puts labels that would overlap into one, and leaves no conductor out", () => {
    const rungs = rungsOf(story({ potentials: { L: [119, 120, 121], PE: [0, 0.2, 1], N: [0, 0.4, 1] } }));
    const labels = labelsOf(rungs, scaleOf([], 120, null, false).y);
    expect(labels.map((l) => l.members.map((m) => m.terminal))).toEqual([["L"], ["N", "PE"]]);
    const crowded = Array.from({ length: 12 }, (_, i) => ({
      terminal: `${i}`,
      low: 0,
      middle: 120 - i * 7,
      high: 0,
    }));
    const placed = labelsOf(crowded, scaleOf([], 120, null, true).y);
    expect(placed.flatMap((l) => l.members)).toHaveLength(12);
    for (const [one, other] of couples(placed)) expect(other.at - one.at).toBeGreaterThanOrEqual(18);
  });
});

describe("phasors", () => {
  const star = story({
    phasors: { L1: [230, 0], L2: [-115, -199], L3: [-115, 199], N: [0.1, 0], PE: [0, 0] },
  });

  it("count their degrees against the clock from the first line, and gather at the earth what is there", () => {
    const tips = tipsOf(star);
    expect(tips.map((tip) => [tip.terminals.join(" "), degreesOf(tip)])).toEqual([
      ["L1", 0],
      ["L2", -120],
      ["L3", 120],
      ["N PE", null],
    ]);
  });

  it("stay within their rim whatever is longest, the longest on it", () => {
    for (const scale of [0.5, 1, 30]) {
      const phasors = Object.fromEntries(
        Object.entries(star.phasors).map(([t, [x = 0, y = 0]]) => [t, [x * scale, y * scale]]),
      );
      const reaches = tipsOf(story({ phasors })).map((tip) => Math.hypot(tip.x, tip.y));
      expect(Math.max(...reaches)).toBeCloseTo(REACH, 5);
    }
  });

  it("have their letters in the picture and apart from each other", () => {
    const split = story({ phasors: { L1: [120, 0], L2: [-120, 0], N: [0, 0], PE: [0, 0] } });
    for (const told of [star, split]) {
      const tips = tipsOf(told);
      const letters = tips.map((tip) => labelAt(tip, tips));
      for (const { x, y } of letters) {
        expect(x).toBeGreaterThan(0);
        expect(x).toBeLessThan(ACROSS);
        expect(y).toBeGreaterThan(0);
        expect(y).toBeLessThan(HEIGHT + 5);
      }
      for (const [one, other] of couples(letters)) expect(apart(one, other)).toBeGreaterThan(12);
    }
  });

  it("keep the letters of the earth off every arm", () => {
    const tips = tipsOf(star);
    const earth = tips.find((tip) => degreesOf(tip) === null);
    const { x, textAnchor } = labelAt(earth ?? (tips[0] as Tip), tips);
    expect([x < MIDDLE.x, textAnchor]).toEqual([true, "end"]);
  });

  it("have room for the letters of two lines on one leg, at whichever side", () => {
    for (const volts of [120, -120]) {
      const tips = tipsOf(story({ phasors: { L1: [volts, 0], L2: [volts, 0], N: [0, 0], PE: [0, 0] } }));
      const { x, textAnchor } = labelAt(tips[0] as Tip, tips);
      expect(textAnchor).toBe("middle");
      expect(Math.min(x, ACROSS - x)).toBeGreaterThan(22);
    }
  });

  it("put a letter below a tip that another lies behind, off the letters of that one", () => {
    const tips = tipsOf(story({ phasors: { L1: [240, 0], L2: [240, 0], PE: [180, 0], N: [0, 0] } }));
    const [outer, inner] = tips.map((tip) => labelAt(tip, tips));
    expect(outer?.y).toBeLessThan(MIDDLE.y);
    expect(inner?.y).toBeGreaterThan(MIDDLE.y);
  });
});

describe("pairs", () => {
  const sets = [
    ["L", "N"],
    ["L", "N", "PE"],
    ["L1", "L2", "N", "PE"],
    ["L1", "L2", "L3", "N", "PE"],
  ];

  it.each(sets.flatMap((set) => [[set], [[...set, "CASE"]]]))("all stand apart: %s", (terminals) => {
    const spots = spotsOf(terminals);
    expect(Object.keys(spots).sort()).toEqual([...terminals].sort());
    for (const [one, other] of couples(Object.values(spots))) expect(apart(one, other)).toBeGreaterThan(100);
    for (const [terminal, spot] of Object.entries(spots)) {
      expect(spot.y).toBeLessThan(TALL);
      if (terminal !== "CASE") expect(spot.x > 0 && spot.x < WIDE).toBe(true);
    }
  });

  test.each(sets.map((set) => [set]))("no two values of edges stand on each other: %s", (terminals) => {
    const spots = Object.values(spotsOf(terminals));
    const values = couples(spots).map(([a, b]) => valueAt(a, b, terminals.length));
    for (const [one, other] of couples(values)) expect(apart(one, other)).toBeGreaterThan(30);
  });
});
