import { Link } from "react-router";
import type { HuntLine } from "../../api/client";
import work from "../../parts/WorkList.module.css";
import { dayOf } from "../../reading/dates";
import { STATES } from "./words";

/** Hunts with where they are. */
export function HuntList({ hunts }: { hunts: HuntLine[] }) {
  return (
    <ul className={work.list}>
      {hunts.map((hunt) => (
        <li key={hunt.id}>
          <Link to={`/hunts/${hunt.id}`} className={work.line}>
            <span aria-hidden>{STATES[hunt.state].sign}</span>
            <span>
              <strong>{hunt.title}</strong>
              {hunt.said !== hunt.state && <em>{hunt.said}</em>}
              <span className="quiet">
                {hunt.site.name}, {dayOf(hunt.begun_at)}: {hunt.happened}
              </span>
            </span>
            <span className={work.right}>{STATES[hunt.state].name}</span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
