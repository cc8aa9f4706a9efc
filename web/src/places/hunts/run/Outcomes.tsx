import type { ReactNode } from "react";
import { sentence } from "../../../reading/sentence";
import classes from "../Hunts.module.css";

/** What can be told of a place, in one tap each. */
export function Outcomes<T extends { when: string }>(props: {
  outcomes: T[];
  onTap: (outcome: T) => void;
  about?: (outcome: T) => ReactNode;
}) {
  return (
    <div className={classes.outcomes}>
      {props.outcomes.map((outcome) => (
        <button
          key={outcome.when}
          type="button"
          className={classes.outcome}
          onClick={() => props.onTap(outcome)}
        >
          <strong>{sentence(outcome.when)}</strong>
          {props.about?.(outcome)}
        </button>
      ))}
    </div>
  );
}
