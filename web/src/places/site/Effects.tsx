import type { Effects as Found } from "../../api/client";
import { VerdictShape, WORDS } from "../../parts/VerdictShape";
import classes from "./Effects.module.css";

/** What a change would make of verdicts, before it is saved: each point as it is and as it would be. */
export function Effects({ found }: { found: Found }) {
  const { points, measured } = found;
  return (
    <div className={classes.effects} role="alert">
      <strong>
        {points.length === 1 ? "1 point reads" : `${points.length} points read`} otherwise then
        {measured > points.length && `, of ${measured} measured`}. Save it even so?
      </strong>
      <ul>
        {points.map((one) => (
          <li key={one.id}>
            <span>
              {one.name}, {one.circuit}
            </span>
            <span className={classes.turn}>
              <VerdictShape kind={one.before} size={20} /> {WORDS[one.before]}
              <span aria-hidden="true">→</span>
              <span className="visually-hidden">becomes</span>
              <VerdictShape kind={one.after} size={20} /> {WORDS[one.after]}
            </span>
          </li>
        ))}
      </ul>
      <p>What was recorded stays as it is. Who changed it, when, and what stood before, is kept.</p>
    </div>
  );
}
