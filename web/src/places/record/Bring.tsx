import { Link } from "react-router";
import type { Visit } from "../../api/client";
import { VerdictShape } from "../../parts/VerdictShape";
import classes from "./Record.module.css";

type Wanted = Visit["bring"][number];
const NAMED = 2;

/** What to bring, and whether there is a tester fit for each thing that is to be measured. */
export function Bring({ visit }: { visit: Visit }) {
  if (visit.bring.length === 0) return null;
  return (
    <section aria-labelledby="visit-bring">
      <h2 id="visit-bring">Bring</h2>
      <ul className={classes.lines}>
        {visit.bring.map((one) => (
          <li key={`${one.purpose} ${one.systems.join()}`} className={classes.bring}>
            <VerdictShape kind={one.fit.length > 0 ? "closed" : "hazard"} size={20} />
            <span>
              <strong>{one.purpose}</strong>{" "}
              {one.fit.length > 0 ? <Fit wanted={one} /> : <NoneFit wanted={one} />}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The best of them by name. */
function Fit({ wanted }: { wanted: Wanted }) {
  const more = wanted.fit.length - NAMED;
  return (
    <>
      {wanted.fit.slice(0, NAMED).map((tester, index) => (
        <span key={tester.id}>
          {index > 0 && " or "}
          <Link to={`/kit/${tester.id}`}>{tester.label}</Link>
        </span>
      ))}
      {more > 0 && <span className="quiet">, or {more} more</span>}
    </>
  );
}

function NoneFit({ wanted }: { wanted: Wanted }) {
  return (
    <span>
      nothing in the kit is fit for it on {wanted.systems.join(", ")}.
      {wanted.unfit.map((tester) => (
        <span key={tester.id} className="quiet">
          {" "}
          <Link to={`/kit/${tester.id}`}>{tester.label}</Link>: {tester.why.join(", ")}.
        </span>
      ))}
    </span>
  );
}
