import type { PairHistory } from "../../api/client";
import { monthOf } from "../../reading/dates";
import classes from "./History.module.css";

const WIDTH = 300;
const HEIGHT = 130;
const LEFT = 44;
const RIGHT = 40;
const TOP = 14;

/** Insulation from visit to visit, at 20 °C on a log scale; the limit as a line, a fall by half said in words. */
export function History({ history, practice }: { history: PairHistory; practice: string }) {
  const day = (at: string) => monthOf(at, practice);
  const x = (across: number) => LEFT + across * (WIDTH - LEFT - RIGHT);
  const y = (up: number) => TOP + (1 - up) * HEIGHT;
  const { marks } = history;
  const last = marks.at(-1);
  return (
    <figure className={classes.figure}>
      <figcaption>
        <b>{history.title}</b>
        {last && <span className="mono"> {last.mohm_20c} MΩ</span>}
        {history.halved && <em>Less than half of the visit before</em>}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT + TOP + 24}`}
        role="img"
        aria-label={`Insulation ${history.title}: ${marks.map((m) => `${day(m.at)} ${m.mohm_20c} megohms`).join(", ")}`}
        className={classes.svg}
      >
        {history.ticks.map(({ mohm, up }) => (
          <g key={mohm}>
            <line x1={LEFT} x2={WIDTH - 8} y1={y(up)} y2={y(up)} className={classes.tick} />
            <text x={LEFT - 6} y={y(up) + 4} className={classes.scale}>
              {mohm}
            </text>
          </g>
        ))}
        <line
          x1={LEFT}
          x2={WIDTH - 8}
          y1={y(history.limit_up)}
          y2={y(history.limit_up)}
          className={classes.limit}
        />
        <text x={WIDTH - 8} y={y(history.limit_up) + 14} className={classes.limitText}>
          limit {history.limit_mohm} MΩ
        </text>
        <polyline points={marks.map((m) => `${x(m.across)},${y(m.up)}`).join(" ")} className={classes.line} />
        {marks.map((mark) => (
          <g key={mark.at}>
            {mark.halved ? (
              <path d={`M${x(mark.across)} ${y(mark.up) - 7}l7 7-7 7-7-7z`} className={classes.halved} />
            ) : (
              <circle cx={x(mark.across)} cy={y(mark.up)} r="5" className={classes.mark} />
            )}
            <text x={x(mark.across)} y={HEIGHT + TOP + 18} className={classes.day}>
              {day(mark.at)}
            </text>
          </g>
        ))}
      </svg>
    </figure>
  );
}
