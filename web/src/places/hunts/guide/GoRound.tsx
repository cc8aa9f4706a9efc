import type { GuidedStep } from "../../../api/client";
import classes from "../Hunts.module.css";

type Outcome = GuidedStep["outcomes"][number];

/** Points to go round, one tap each. */
export function GoRound(props: {
  points: [id: string, name: string][];
  outcomes: Outcome[];
  onTap: (point: string, outcome: Outcome) => void;
}) {
  if (props.points.length === 0) return <p>Every point on record was looked at.</p>;
  return (
    <ul className={classes.taps}>
      {props.points.map(([point, name]) => (
        <li key={point}>
          <span>{name}</span>
          {props.outcomes.map((outcome) => (
            <button
              key={outcome.id}
              type="button"
              className={classes.tap}
              aria-label={`${name}: ${outcome.title}`}
              onClick={() => props.onTap(point, outcome)}
            >
              {outcome.title}
            </button>
          ))}
        </li>
      ))}
    </ul>
  );
}
