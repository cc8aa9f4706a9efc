import type { Practice, RingBar } from "../../api/client";
import classes from "./RingBars.module.css";

const HEIGHT = 150;
const WIDTH = 30;
const GAP = 12;
const LEFT = 4;
/** Of the drawing on the screen: with it the smallest figure is 13 px, however many outlets there are. */
const LEAST_SCALE = 0.75;
/** A bar that is lower has its figure over it. */
const LONG_ENOUGH = 0.38;

/** Every outlet of the ring beside what it should read; a spur stands out, and is said to be one. */
export function RingBars({ bars, practice }: { bars: RingBar[]; practice: Practice }) {
  const { L, N, PE } = practice.letters;
  const outlets = [...new Set(bars.map((b) => b.outlet))];
  const step = 2 * WIDTH + GAP;
  const width = LEFT + outlets.length * step;
  return (
    <figure className={classes.figure}>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard */}
      <section className={classes.scrolls} tabIndex={0} aria-label="The ring">
        <svg
          style={{ minWidth: width * LEAST_SCALE }}
          viewBox={`0 0 ${width} ${HEIGHT + 62}`}
          role="img"
          aria-label="The ring, outlet by outlet"
          className={classes.svg}
        >
          {bars.map((bar) => {
            const pair = bar.pair === "r1_rn" ? 0 : 1;
            const x = LEFT + outlets.indexOf(bar.outlet) * step + pair * WIDTH;
            const y = (share: number) => HEIGHT - HEIGHT * share;
            return (
              <g key={`${bar.outlet} ${bar.pair}`}>
                <rect
                  x={x + 2}
                  y={y(bar.up)}
                  width={WIDTH - 4}
                  height={HEIGHT * bar.up}
                  className={
                    bar.spur || bar.poor_joint ? classes.high : pair ? classes.second : classes.first
                  }
                />
                <line
                  x1={x}
                  x2={x + WIDTH}
                  y1={y(bar.expected)}
                  y2={y(bar.expected)}
                  className={classes.expected}
                />
                <line x1={x} x2={x + WIDTH} y1={y(bar.limit)} y2={y(bar.limit)} className={classes.limit} />
                <text
                  transform={`translate(${x + WIDTH / 2 + 6} ${bar.up < LONG_ENOUGH ? y(bar.up) - 6 : HEIGHT - 8}) rotate(-90)`}
                  className={bar.up < LONG_ENOUGH ? classes.over : classes.ohms}
                >
                  {bar.ohms}
                </text>
              </g>
            );
          })}
          {outlets.map((outlet, i) => {
            const own = bars.filter((b) => b.outlet === outlet);
            const said = own.some((b) => b.spur) ? "spur" : own.some((b) => b.poor_joint) ? "poor joint" : "";
            return (
              <g key={outlet}>
                <text x={LEFT + i * step + WIDTH} y={HEIGHT + 20} className={classes.name}>
                  {i + 1}
                </text>
                {said.split(" ").map((word, line) => (
                  <text
                    key={word}
                    x={LEFT + i * step + WIDTH}
                    y={HEIGHT + 38 + 18 * line}
                    className={classes.said}
                  >
                    {word}
                  </text>
                ))}
              </g>
            );
          })}
        </svg>
      </section>
      <figcaption>
        {outlets.map((outlet, i) => (
          <span key={outlet}>
            <b>{i + 1}</b> {outlet}
          </span>
        ))}
        <span className="quiet">
          Each outlet {L} to {N}, then {L} to {PE}, Ω. Dashed: expected. Line: limit.
        </span>
      </figcaption>
    </figure>
  );
}
