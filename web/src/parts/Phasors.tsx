/** Where the conductors sit against earth when there is more than one line: how far, and which way. */

import type { Practice, Story } from "../api/client";
import classes from "./Phasors.module.css";
import { colourOf } from "./VerdictShape";

const WIDTH = 150;
const HEIGHT = 124;
const MIDDLE = { x: WIDTH / 2, y: HEIGHT / 2 };
const REACH = 42;
const NEAR = 9;

type Tip = { terminals: string[]; x: number; y: number };

export function Phasors({ story, practice }: { story: Story; practice: Practice }) {
  const lengths = Object.values(story.phasors).map(([along = 0, across = 0]) => Math.hypot(along, across));
  const longest = Math.max(1, ...lengths);
  const tips = gathered(story, longest);
  const letters = (tip: Tip) => tip.terminals.map((t) => practice.letters[t] ?? t).join(" ");
  const colour = story.severity === "danger" ? colourOf("danger") : "var(--ep-text)";
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={classes.phasors}
      role="img"
      aria-label={`Phasors, if ${story.title}: ${tips
        .map((tip) => `${letters(tip)} ${degrees(tip)}`)
        .join(", ")}`}
    >
      <circle cx={MIDDLE.x} cy={MIDDLE.y} r={REACH} className={classes.rim} />
      {tips.map((tip) => (
        <g key={tip.terminals[0]}>
          {Math.hypot(tip.x, tip.y) > NEAR && (
            <path
              d={`M${MIDDLE.x} ${MIDDLE.y}L${MIDDLE.x + tip.x} ${MIDDLE.y + tip.y}`}
              stroke={colour}
              className={classes.arm}
            />
          )}
          <circle cx={MIDDLE.x + tip.x} cy={MIDDLE.y + tip.y} r="4.5" fill={colour} />
          <text {...labelAt(tip, tips)} className={classes.letter} fill={colour}>
            {letters(tip)}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** Angles count against the clock from the first line, as the trade draws them; the picture's y points down. */
function gathered(story: Story, longest: number): Tip[] {
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
function labelAt(tip: Tip, tips: Tip[]): { x: number; y: number; textAnchor: "start" | "middle" | "end" } {
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

function degrees({ x, y }: Tip): string {
  if (Math.hypot(x, y) < NEAR) return "at earth";
  return `at ${Math.round((Math.atan2(-y, x) * 180) / Math.PI)} degrees`;
}
