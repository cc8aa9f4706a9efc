/** Where the conductors sit against earth when there is more than one line: how far, and which way. */

import type { Practice, Story } from "../api/client";
import { wordOf } from "../api/reference";
import {
  degreesOf,
  HEIGHT,
  labelAt,
  MIDDLE,
  NEAR,
  REACH,
  type Tip,
  tipsOf,
  WIDTH,
} from "../geometry/phasors";
import classes from "./Phasors.module.css";
import { colourOf } from "./VerdictShape";

export function Phasors({ story, practice }: { story: Story; practice: Practice }) {
  const tips = tipsOf(story);
  const letters = (tip: Tip) => tip.terminals.map((t) => practice.letters[t] ?? t).join(" ");
  const pointing = (tip: Tip) => {
    const degrees = degreesOf(tip);
    return degrees === null ? wordOf(practice, "earth") : `${degrees} degrees`;
  };
  const colour = story.severity === "danger" ? colourOf("danger") : "var(--ep-text)";
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={classes.phasors}
      role="img"
      aria-label={`Phasors, if ${story.title}: ${tips
        .map((tip) => `${letters(tip)} at ${pointing(tip)}`)
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
