import { Link } from "react-router";
import type { Interpretation } from "../api/client";
import { BesideWiringInShort } from "./BesideWiring";
import { lastKnownShape, VerdictShape, WORDS } from "./VerdictShape";
import work from "./WorkList.module.css";

type InShort = Pick<Interpretation, "verdict" | "insulation" | "protection"> & {
  id: string;
  name: string;
  unshown?: string;
  old?: string;
};

/** A point's line in a list: its verdict, and the two answers beside it. */
export function PointLink(props: { point: InShort; where?: string; lastKnown?: boolean }) {
  const { point, where, lastKnown = false } = props;
  return (
    <Link to={`/bench/${point.id}`} className={work.line}>
      <VerdictShape kind={lastKnownShape(point.verdict, lastKnown)} size={24} />
      <span>
        <strong>{point.name}</strong>
        {where && <span className="quiet">{where}</span>}
        {point.old && <em>{point.old}</em>}
        {point.unshown ? <em>{point.unshown}</em> : <BesideWiringInShort found={point} />}
      </span>
      <span className={work.right}>
        {lastKnown && "Last known: "}
        {point.unshown ? "Unknown" : WORDS[point.verdict]}
      </span>
    </Link>
  );
}
