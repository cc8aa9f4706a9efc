/** Voltage of each conductor to earth: a voltage scale, and each conductor where the readings put it, one ladder a story. */

import type { Practice, Story } from "../api/client";
import classes from "./Ladder.module.css";
import { colourOf } from "./VerdictShape";

const WIDTH = 440;
const TITLES = 46;
const TOP = 14;
const TALL = 226;
/** Where phasors stand below it. */
const SHORT = 150;
const LEFT = 46;
const TICKS = [0, 0.25, 0.5, 0.75, 1];
const LABEL_HEIGHT = 18;

type Rung = { terminal: string; low: number; middle: number; high: number };

export function Ladder(props: {
  stories: Story[];
  practice: Practice;
  nominal: number;
  band: number[] | null;
  short?: boolean;
}) {
  const { stories, practice, nominal, band } = props;
  const bottom = props.short ? SHORT : TALL;
  const highest = Math.max(
    nominal,
    band?.[1] ?? 0,
    ...stories.flatMap((s) => Object.values(s.potentials).map((p) => p[2] ?? 0)),
  );
  const y = (volts: number) => bottom - (volts / highest) * (bottom - TOP);
  const column = (WIDTH - LEFT) / Math.max(stories.length, 1);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${bottom + TITLES}`}
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
          x={LEFT + column * i + Math.min(column * 0.16, 34)}
          width={column}
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
  const labels = placed(rungs, y);
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
          if: {story.title.charAt(0).toLowerCase() + story.title.slice(1)}
        </div>
      </foreignObject>
    </g>
  );
}

function rungsOf(story: Story): Rung[] {
  return Object.entries(story.potentials)
    .map(([terminal, [low = 0, middle = 0, high = 0]]) => ({ terminal, low, middle, high }))
    .sort((a, b) => b.middle - a.middle);
}

/** Labels of rungs too near each other to be told apart become one. */
function placed(rungs: Rung[], y: (volts: number) => number): { at: number; members: Rung[] }[] {
  const groups: { at: number; members: Rung[] }[] = [];
  for (const rung of rungs) {
    const last = groups.at(-1);
    if (last && y(rung.middle) - last.at < LABEL_HEIGHT) last.members.push(rung);
    else groups.push({ at: y(rung.middle), members: [rung] });
  }
  return groups;
}

function described(stories: Story[], practice: Practice): string {
  return stories
    .map((story) => {
      const volts = rungsOf(story).map(
        (r) => `${practice.letters[r.terminal] ?? r.terminal} at ${Math.round(r.middle)} volts`,
      );
      return `If ${story.title}: ${volts.join(", ")} to earth.`;
    })
    .join(" ");
}
