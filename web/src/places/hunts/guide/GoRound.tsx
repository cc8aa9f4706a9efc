import type { GuidedStep } from "../../../api/client";
import classes from "../Hunts.module.css";

type Outcome = GuidedStep["outcomes"][number];

/** Points to go round, one tap each. A row stays where it is with its answer: nothing moves under a finger. */
export function GoRound(props: {
  points: [id: string, name: string][];
  answers: Map<string, string>;
  outcomes: Outcome[];
  onTap: (point: string, outcome: Outcome) => void;
}) {
  const { points, answers, outcomes, onTap } = props;
  return (
    <>
      <ul className={classes.taps}>
        {points.map(([point, name]) => {
          const answer = outcomes.find(({ id }) => id === answers.get(point));
          return (
            <li key={point} data-told={answer ? true : undefined}>
              <span>{name}</span>
              {answer ? (
                <strong>{answer.title}</strong>
              ) : (
                outcomes.map((outcome) => (
                  <button
                    key={outcome.id}
                    type="button"
                    className={classes.tap}
                    aria-label={`${name}: ${outcome.title}`}
                    onClick={() => onTap(point, outcome)}
                  >
                    {outcome.title}
                  </button>
                ))
              )}
            </li>
          );
        })}
      </ul>
      {points.every(([point]) => answers.has(point)) && <p>Every point on record was looked at.</p>}
    </>
  );
}
