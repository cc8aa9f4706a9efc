/** Where the tips of phasors are round the earth in the middle, and where their letters stand. */

import type { Story } from "../api/client";

export const WIDTH = 150;
export const HEIGHT = 124;
export const MIDDLE = { x: WIDTH / 2, y: HEIGHT / 2 };
export const REACH = 42;
/** Tips so near each other are one, and one so near the middle is at it. */
export const NEAR = 9;

type Letter = { x: number; y: number; textAnchor: "start" | "middle" | "end" };
export type Tip = { terminals: string[]; x: number; y: number };

/** Angles count against the clock from the first line, as the trade draws them; the picture's y points down. */
export function tipsOf(story: Story): Tip[] {
  const lengths = Object.values(story.phasors).map(([along = 0, across = 0]) => Math.hypot(along, across));
  const longest = Math.max(1, ...lengths);
  const tips: Tip[] = [];
  for (const [terminal, [along = 0, across = 0]] of Object.entries(story.phasors)) {
    const [x, y] = [(along / longest) * REACH, (-across / longest) * REACH];
    const same = tips.find((tip) => Math.hypot(tip.x - x, tip.y - y) < NEAR);
    if (same) same.terminals.push(terminal);
    else tips.push({ terminals: [terminal], x, y });
  }
  return tips;
}

/** Where no arm goes: below if there is room, else the side that is furthest from them all. */
function besideTheMiddle(arms: Tip[]): Letter {
  const sides = [
    { x: 0, y: 20, textAnchor: "middle" },
    { x: -10, y: 5, textAnchor: "end" },
    { x: 10, y: 5, textAnchor: "start" },
    { x: 0, y: -10, textAnchor: "middle" },
  ] as const;
  const nearest = ({ x, y }: { x: number; y: number }) =>
    Math.max(
      -1,
      ...arms.map((arm) => (x * arm.x + y * arm.y) / (Math.hypot(x, y) * Math.hypot(arm.x, arm.y))),
    );
  const [best = sides[0]] = [...sides].sort((a, b) => nearest(a) - nearest(b));
  return { x: MIDDLE.x + best.x, y: MIDDLE.y + best.y, textAnchor: best.textAnchor };
}

/** Outwards of the tip; below it where another lies further out the same way, above where several letters have no room. */
export function labelAt(tip: Tip, tips: Tip[]): Letter {
  const { x, y } = tip;
  const length = Math.hypot(x, y);
  if (length < NEAR) return besideTheMiddle(tips.filter((other) => Math.hypot(other.x, other.y) >= NEAR));
  const behind = tips.some(
    (other) =>
      Math.hypot(other.x, other.y) > length &&
      (x * other.x + y * other.y) / length > Math.hypot(other.x, other.y) * 0.9,
  );
  const wide = tip.terminals.length > 1 && Math.abs(x) > length / 2;
  if (behind) return { x: MIDDLE.x + x, y: MIDDLE.y + y + 20, textAnchor: "middle" };
  if (wide) return { x: MIDDLE.x + x, y: MIDDLE.y + y - 10, textAnchor: "middle" };
  const out = (length + 13) / length;
  return {
    x: MIDDLE.x + x * out,
    y: MIDDLE.y + y * out + 5,
    textAnchor: Math.abs(x) < length / 2 ? "middle" : x > 0 ? "start" : "end",
  };
}

/** Which way a tip points, in degrees; null where it is at the middle. */
export function degreesOf({ x, y }: Tip): number | null {
  return Math.hypot(x, y) < NEAR ? null : Math.round((Math.atan2(-y, x) * 180) / Math.PI);
}
