/** Where the rungs of a voltage ladder are: a scale from earth up, a column a story, labels that do not overlap. */

import type { Story } from "../api/client";

export const WIDTH = 440;
export const LEFT = 46;
const TOP = 14;
/** The foot of the scale; higher where phasors stand below it. */
const FOOT = { tall: 226, short: 150 };
const LABEL_HEIGHT = 18;

export type Rung = { terminal: string; low: number; middle: number; high: number };
export type Label = { at: number; members: Rung[] };

/** The scale: its foot, and how far down a voltage is. Everything that is shown fits. */
export function scaleOf(stories: Story[], nominal: number, band: number[] | null, short: boolean) {
  const foot = short ? FOOT.short : FOOT.tall;
  const highest = Math.max(
    nominal,
    band?.[1] ?? 0,
    ...stories.flatMap((story) => Object.values(story.potentials).map((potential) => potential[2] ?? 0)),
  );
  return { foot, y: (volts: number) => foot - (volts / highest) * (foot - TOP) };
}

/** Where a story's column begins and how wide it is, of so many. */
export function columnOf(index: number, count: number) {
  const width = (WIDTH - LEFT) / Math.max(count, 1);
  return { x: LEFT + width * index + Math.min(width * 0.16, 34), width };
}

/** The conductors of a story, the highest first. */
export function rungsOf(story: Story): Rung[] {
  return Object.entries(story.potentials)
    .map(([terminal, [low = 0, middle = 0, high = 0]]) => ({ terminal, low, middle, high }))
    .sort((a, b) => b.middle - a.middle);
}

/** Labels of rungs too near each other to be told apart become one. */
export function labelsOf(rungs: Rung[], y: (volts: number) => number): Label[] {
  const groups: Label[] = [];
  for (const rung of rungs) {
    const last = groups.at(-1);
    if (last && y(rung.middle) - last.at < LABEL_HEIGHT) last.members.push(rung);
    else groups.push({ at: y(rung.middle), members: [rung] });
  }
  return groups;
}
