/** Where the tips of phasors are round the earth in the middle, and where their letters stand. */

import type { Story } from "../api/client";

export const WIDTH = 150;
export const HEIGHT = 124;
export const MIDDLE = { x: WIDTH / 2, y: HEIGHT / 2 };
export const REACH = 42;
/** Tips so near each other are one, and one so near the middle is at it. */
export const NEAR = 9;

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

/** Outwards of the tip; beside it where another lies further out the same way, below it at the middle. */
export function labelAt(
  tip: Tip,
  tips: Tip[],
): { x: number; y: number; textAnchor: "start" | "middle" | "end" } {
  const { x, y } = tip;
  const length = Math.hypot(x, y);
  if (length < NEAR) return { x: MIDDLE.x, y: MIDDLE.y + 20, textAnchor: "middle" };
  const behind = tips.some(
    (other) =>
      Math.hypot(other.x, other.y) > length &&
      (x * other.x + y * other.y) / length > Math.hypot(other.x, other.y) * 0.9,
  );
  if (behind) return { x: MIDDLE.x + x, y: MIDDLE.y + y - 10, textAnchor: "middle" };
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
