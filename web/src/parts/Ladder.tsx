/** Voltage of each conductor to earth: a voltage scale, and each conductor where the readings put it, one ladder a story. */

import type { Practice, Story } from "../api/client";
import { wordOf } from "../api/reference";
import { columnOf, LEFT, labelsOf, rungsOf, scaleOf, WIDTH } from "../geometry/ladder";
import classes from "./Ladder.module.css";
import { colourOf } from "./VerdictShape";

const TITLES = 46;
const TICKS = [0, 0.25, 0.5, 0.75, 1];

export function Ladder(props: {
  stories: Story[];
  practice: Practice;
  nominal: number;
  band: number[] | null;
  short?: boolean;
}) {
  const { stories, practice, nominal, band } = props;
  const { foot, y } = scaleOf(stories, nominal, band, props.short ?? false);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${foot + TITLES}`}
      className={classes.ladder}
      role="img"
      aria-label={described(stories, practice)}
    >
      {band?.[0] !== undefined && band[1] !== undefined && (
        <rect
          x={LEFT}
          y={y(band[1])}
          width={WIDTH - LEFT - 6}
          height={y(band[0]) - y(band[1])}
          className={classes.band}
        />
      )}
      {TICKS.map((share) => (
        <g key={share}>
          <path d={`M${LEFT} ${y(share * nominal)}H${WIDTH - 6}`} className={classes.tick} />
          <text x={LEFT - 8} y={y(share * nominal) + 5} className={classes.scale}>
            {Math.round(share * nominal)}
          </text>
        </g>
      ))}
      {stories.map((story, i) => (
        <Column
          key={story.title}
          story={story}
          {...columnOf(i, stories.length)}
          y={y}
          unit={stories.length > 2 ? "" : " V"}
          practice={practice}
        />
      ))}
    </svg>
  );
}

function Column(props: {
  story: Story;
  x: number;
  width: number;
  y: (volts: number) => number;
  /** Left to the scale where columns are narrow. */
  unit: string;
  practice: Practice;
}) {
  const { story, x, y, practice } = props;
  const rungs = rungsOf(story);
  const colour = story.severity === "danger" ? colourOf("danger") : "var(--ep-text)";
  const ends = rungs.map((r) => r.middle);
  const labels = labelsOf(rungs, y);
  return (
    <g>
      <path
        d={`M${x} ${y(Math.min(...ends))}V${y(Math.max(...ends))}`}
        stroke={colour}
        strokeWidth="2"
        strokeDasharray={story.severity === "danger" ? "5 4" : undefined}
      />
      {rungs.map((rung) => (
        <g key={rung.terminal}>
          <rect
            x={x - 12}
            y={y(rung.high)}
            width="24"
            height={Math.max(0, y(rung.low) - y(rung.high))}
            fill={colour}
            opacity="0.18"
          />
          <path d={`M${x - 12} ${y(rung.middle)}h24`} stroke={colour} strokeWidth="4.5" />
        </g>
      ))}
      {labels.map(({ at, members }) => (
        <text key={members[0]?.terminal} x={x + 19} y={at + 5} className={classes.label} fill={colour}>
          <tspan className={classes.letters}>
            {members.map((m) => practice.letters[m.terminal] ?? m.terminal).join(" ")}
          </tspan>
          <tspan dx="7" className={classes.volts}>
            {Math.round(members[0]?.middle ?? 0)}
            {props.unit}
          </tspan>
        </text>
      ))}
      <foreignObject x={x - 16} y={y(0) + 13} width={props.width - 8} height={TITLES - 4}>
        <div className={classes.title} style={{ color: story.severity === "danger" ? colour : undefined }}>
          If: {story.title}
        </div>
      </foreignObject>
    </g>
  );
}

function described(stories: Story[], practice: Practice): string {
  return stories
    .map((story) => {
      const volts = rungsOf(story).map(
        (r) => `${practice.letters[r.terminal] ?? r.terminal} at ${Math.round(r.middle)} volts`,
      );
      return `If ${story.title}: ${volts.join(", ")} to ${wordOf(practice, "earth")}.`;
    })
    .join(" ");
}
