import { Link } from "react-router";
import type { RoundLine } from "../../api/client";
import { VerdictShape, WORDS } from "../../parts/VerdictShape";
import work from "../../parts/WorkList.module.css";
import { dayOf } from "../../reading/dates";

/** Rounds with how far they came. */
export function RoundList({ rounds }: { rounds: RoundLine[] }) {
  return (
    <ul className={work.list}>
      {rounds.map((round) => (
        <li key={round.id}>
          <Link to={`/rounds/${round.id}`} className={work.line}>
            <VerdictShape kind={round.worst} size={24} />
            <span>
              <strong>{round.title}</strong>
              <span className="quiet">
                {round.site.name}, {dayOf(round.begun_at)}
              </span>
            </span>
            <span className={work.right}>
              {progressOf(round)}
              {round.outlets > 0 && (
                <span className="quiet"> · worst {(WORDS[round.worst] ?? round.worst).toLowerCase()}</span>
              )}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

const NO_OUTLETS = "All its outlets were moved away";

/** "4 of 6 checked, 1 in full, 1 skipped". */
export function progressOf(round: RoundLine): string {
  if (round.unshown) return round.unshown;
  if (round.outlets === 0) return NO_OUTLETS;
  const parts = [`${round.done} of ${round.outlets} checked`];
  if (round.full) parts.push(`${round.full} in full`);
  if (round.skipped) parts.push(`${round.skipped} skipped`);
  return parts.join(", ");
}
