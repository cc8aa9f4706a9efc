import type { Trend as Series } from "../api/client";
import { monthOf } from "../reading/dates";
import classes from "./Trend.module.css";

const WIDTH = 300;
const HEIGHT = 130;
const LEFT = 52;
const RIGHT = 40;
const TOP = 14;
/** Of days under the picture, before they touch. */
const MOST_NAMED = 4;

/** One quantity from visit to visit, its limits as dashed lines; what jumped is said in words. */
export function Trend({ series, practice }: { series: Series; practice?: string }) {
  const month = (at: string) => monthOf(at, practice);
  const x = (across: number) => LEFT + across * (WIDTH - LEFT - RIGHT);
  const y = (up: number) => TOP + (1 - up) * HEIGHT;
  const { marks, unit } = series;
  const last = marks.at(-1);
  const before = marks.at(-2);
  const fell = last && before && last.value < before.value;
  return (
    <figure className={classes.figure}>
      <figcaption>
        <b>{series.title}</b>
        {last && (
          <span className="mono">
            {" "}
            {last.value} {unit}
          </span>
        )}
        {series.jumped && <em>{fell ? "Less than half" : "More than twice"} of the visit before</em>}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT + TOP + 24}`}
        role="img"
        aria-label={`${series.title}: ${marks.map((m) => `${month(m.at)} ${m.value} ${unit}`).join(", ")}`}
      >
        {series.ticks.map((tick) => (
          <g key={tick.value}>
            <line x1={LEFT} x2={WIDTH - 8} y1={y(tick.up)} y2={y(tick.up)} className={classes.tick} />
            <text x={LEFT - 6} y={y(tick.up) + 4} className={classes.scale}>
              {tick.value}
            </text>
          </g>
        ))}
        {series.limits.map((limit) => (
          <g key={limit.value}>
            <line x1={LEFT} x2={WIDTH - 8} y1={y(limit.up)} y2={y(limit.up)} className={classes.limit} />
            <text x={WIDTH - 8} y={y(limit.up) - 4} className={classes.scale}>
              limit {limit.value}
            </text>
          </g>
        ))}
        <polyline points={marks.map((m) => `${x(m.across)},${y(m.up)}`).join(" ")} className={classes.line} />
        {marks.map((mark) => (
          <g key={mark.at}>
            {mark.jumped ? (
              <path d={`M${x(mark.across)} ${y(mark.up) - 7}l7 7-7 7-7-7z`} className={classes.jumped} />
            ) : (
              <circle cx={x(mark.across)} cy={y(mark.up)} r="5" className={classes.mark} />
            )}
          </g>
        ))}
        {(marks.length > MOST_NAMED ? [marks[0], last] : marks).map(
          (mark) =>
            mark && (
              <text key={mark.at} x={x(mark.across)} y={HEIGHT + TOP + 18} className={classes.day}>
                {month(mark.at)}
              </text>
            ),
        )}
      </svg>
    </figure>
  );
}
