import type { Judged } from "../../api/client";
import { VerdictShape } from "../../parts/VerdictShape";
import { Bar } from "./Bar";
import classes from "./Outcome.module.css";
import { shapeOf, wordOf } from "./result";

/** A result while it is typed or once it is put down: word, bar, sentence, limit and source. */
export function Outcome({ judged }: { judged: Judged }) {
  const { outcome, bar, doubt } = judged;
  const { limit } = outcome;
  return (
    <div className={classes.outcome}>
      <p className={classes.word}>
        <VerdictShape kind={shapeOf(outcome.result)} size={22} />
        {wordOf(outcome.result)}
      </p>
      {bar && <Bar bar={bar} fails={outcome.result === "fail"} />}
      <p>{outcome.text}</p>
      {outcome.question && <p className={classes.question}>{outcome.question}</p>}
      {doubt && doubt !== outcome.question && (
        <p className={classes.doubt}>It is kept, and clears nothing: {doubt}.</p>
      )}
      {limit && (
        <p className={classes.limit}>
          {limit.id}
          {typeof limit.value === "number" &&
            ` ${limit.value} ${limit.unit === "ohm" ? "Ω" : limit.unit === "Mohm" ? "MΩ" : limit.unit}`}
          {" · "}
          {limit.source}
        </p>
      )}
    </div>
  );
}
