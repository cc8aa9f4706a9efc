import type { Bench, Practice } from "../../api/client";
import folds from "../../parts/Fold.module.css";
import { ends, entryById, seen } from "../../reading/entry";

/** Readings that are saved and do not count, each with why: what is shown of them proves nothing. */
export function NotCounted({ bench, practice }: { bench: Bench; practice: Practice }) {
  const kept = bench.interpretation.not_counted.filter((one) => !one.warns);
  if (kept.length === 0) return null;
  return (
    <details className={folds.fold} open={kept.length === 1}>
      <summary>
        {kept.length === 1 ? "1 reading does not count" : `${kept.length} readings do not count`}, and why
      </summary>
      <ul>
        {kept.map(({ reading, why }) => {
          const entry = entryById(bench, reading);
          return (
            <li key={reading}>
              {entry && (
                <>
                  <b>{ends(entry, practice)}</b> <span className="mono">{seen(entry)}</span>:{" "}
                </>
              )}
              {why}.
            </li>
          );
        })}
      </ul>
    </details>
  );
}
