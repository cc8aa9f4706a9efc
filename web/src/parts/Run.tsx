import { Link } from "react-router";
import type { Circuit } from "../api/client";
import { BesideWiringInShort } from "./BesideWiring";
import { DeviceSymbol } from "./DeviceSymbol";
import classes from "./Run.module.css";
import { VerdictShape, WORDS } from "./VerdictShape";

/** A circuit as a wire from its device through its points in cable order, each wearing its verdict's shape. */
export function Run({
  circuit,
  here,
  compact = false,
}: {
  circuit: Circuit;
  here?: string;
  compact?: boolean;
}) {
  return (
    <ol
      className={`${classes.run} ${compact ? classes.compact : classes.full}`}
      aria-label={`${circuit.name}, the run`}
    >
      <li className={`${classes.stop} ${classes.device}`}>
        <DeviceSymbol />
        <span className={`mono ${classes.rating}`}>
          {circuit.rating_a === null ? "? A" : `${circuit.rating_a} A`}
        </span>
      </li>
      {circuit.points.map((point) => (
        <li key={point.id} className={classes.stop}>
          <Link
            to={`/bench/${point.id}`}
            className={`${classes.point} ${point.id === here ? classes.here : ""}`}
            aria-current={point.id === here ? "true" : undefined}
            title={compact ? `${point.name}: ${WORDS[point.verdict]}` : undefined}
          >
            <VerdictShape kind={point.verdict} size={26} />
            <span className={classes.label}>{point.name}</span>
            <span className={classes.word}>{WORDS[point.verdict]}</span>
            {!compact && point.old && <span className={classes.word}>{point.old}</span>}
            {!compact && <BesideWiringInShort found={point} />}
            {!compact && point.protected_by !== "" && (
              <span className={classes.word}>behind {point.protected_by}</span>
            )}
          </Link>
        </li>
      ))}
    </ol>
  );
}
