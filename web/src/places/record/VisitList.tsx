import { IconCircle, IconCircleCheck, IconProgress } from "@tabler/icons-react";
import { Link } from "react-router";
import type { VisitLine } from "../../api/client";
import work from "../../parts/WorkList.module.css";
import { dayOf } from "../../reading/dates";

const STATES = { planned: IconCircle, begun: IconProgress, closed: IconCircleCheck };
const SAID = { planned: "planned", begun: "under way", closed: "closed" };

/** Visits with how far they came and what comes next. */
export function VisitList({ visits }: { visits: VisitLine[] }) {
  return (
    <ul className={work.list}>
      {visits.map((visit) => {
        const Icon = STATES[visit.state];
        return (
          <li key={visit.id}>
            <Link to={`/record/visits/${visit.id}`} className={work.line}>
              <Icon size={24} aria-hidden="true" />
              <span>
                <strong>{visit.site.name}</strong>
                <span className="quiet">
                  {visit.why} · {dayOf(visit.planned_for)}
                </span>
                {(visit.next || visit.unshown) && (
                  <em>{visit.unshown || `Next: ${visit.next?.title ?? ""}`}</em>
                )}
              </span>
              <span className={work.right}>
                {visit.done} of {visit.steps} done
                <span className="quiet">
                  {" "}
                  · {SAID[visit.state]}
                  {visit.open > 0 && `, ${visit.open} open`}
                </span>
              </span>
            </Link>
          </li>
        );
      })}
    </ul>
  );
}
