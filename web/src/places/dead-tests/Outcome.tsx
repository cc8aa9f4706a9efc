import type { Judged } from "../../api/client";
import { ResultBar } from "../../parts/ResultBar";
import { VerdictShape } from "../../parts/VerdictShape";
import classes from "./Outcome.module.css";
import { shapeOf, wordOf } from "./result";

const SIGNS: Record<string, string> = { ohm: "Ω", Mohm: "MΩ" };

/** A result while it is typed or once it is put down: word, bar, sentence, limit and source. */
export function Outcome({ judged, withoutBar }: { judged: Judged; withoutBar?: boolean }) {
  const { outcome, bar, doubt } = judged;
  const { limit } = outcome;
  return (
    <div className={classes.outcome}>
      <p className={classes.word}>
        <VerdictShape kind={shapeOf(outcome.result)} size={22} />
        {wordOf(outcome.result)}
      </p>
      {bar && !withoutBar && <ResultBar bar={bar} fails={outcome.result === "fail"} />}
      <p>{outcome.text}</p>
      {outcome.question && <p className={classes.question}>{outcome.question}</p>}
      {doubt && doubt !== outcome.question && (
        <p className={classes.doubt}>Saved, does not count: {doubt}.</p>
      )}
      {limit && (
        <p className={classes.limit}>
          {limit.value != null &&
            `Limit ${[limit.value].flat().join(" to ")} ${SIGNS[limit.unit] ?? limit.unit} · `}
          {limit.source}
        </p>
      )}
    </div>
  );
}
