import { Button } from "@mantine/core";
import type { Sheet } from "../../api/client";
import classes from "./Sheet.module.css";
import type { PutDown } from "./usePutDown";

/** After an insulation test the run is a charged capacitor, and for how long is said. */
export function Discharge({ sheet, putDown, done }: { sheet: Sheet; putDown: PutDown; done: boolean }) {
  return (
    <>
      {sheet.holds_s !== null && (
        <p>
          Left alone this run would hold its charge for about <span className="mono">{sheet.holds_s} s</span>.
        </p>
      )}
      {done || putDown.unsent.some(({ type }) => type === "discharged") ? (
        <p className={classes.said}>Discharged.</p>
      ) : (
        <Button
          className={classes.main}
          onClick={() => putDown.put({ type: "discharged" }, "Discharged, under 25 V")}
        >
          It shows under 25 V
        </Button>
      )}
    </>
  );
}
