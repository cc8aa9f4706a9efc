import type { Sheet } from "../../api/client";
import { useIsShown } from "../../api/practice";
import { useSite } from "../../api/queries";
import { PointLink } from "../../parts/PointLink";
import work from "../../parts/WorkList.module.css";
import classes from "./Sheet.module.css";

/** What the tests of a circuit leave of its points: wiring, insulation and protection, each an answer of its own. */
export function OnTheRun({ sheet, cutOff }: { sheet: Sheet; cutOff: boolean }) {
  const { data: site, isError } = useSite(sheet.site.id);
  const circuits = site?.supplies.flatMap((supply) => supply.boards.flatMap((board) => board.circuits)) ?? [];
  const circuit = circuits.find((one) => one.id === sheet.circuit.id);
  const isShown = useIsShown();
  if (!isShown || (site && !circuit?.points.length)) return null;
  return (
    <section className={classes.points}>
      <h2 className="zone-title">Its points: wiring, insulation, protection</h2>
      {!site && (
        <p className="quiet" role="status">
          {isError
            ? "Not known while the server cannot be reached. Treat as live."
            : "Working out its points"}
        </p>
      )}
      <ul className={work.list}>
        {circuit?.points.map((point) => (
          <li key={point.id}>
            <PointLink point={point} lastKnown={cutOff} />
          </li>
        ))}
      </ul>
    </section>
  );
}
