import type { Sheet } from "../../api/client";
import { useSite } from "../../api/queries";
import { Run } from "../../parts/Run";

/** What the tests of a circuit leave of its points: wiring, insulation and protection, each an answer of its own. */
export function OnTheRun({ sheet }: { sheet: Sheet }) {
  const site = useSite(sheet.site.id).data;
  const circuits = site?.supplies.flatMap((supply) => supply.boards.flatMap((board) => board.circuits)) ?? [];
  const circuit = circuits.find((one) => one.id === sheet.circuit.id);
  if (!circuit || circuit.points.length === 0) return null;
  return (
    <>
      <h2 className="zone-title">Its points: wiring, insulation, protection</h2>
      <Run circuit={circuit} />
    </>
  );
}
