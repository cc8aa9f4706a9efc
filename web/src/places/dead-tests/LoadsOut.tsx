import { useState } from "react";
import type { Sheet } from "../../api/client";
import { usePractice } from "../../api/queries";
import { wordOf } from "../../api/reference";
import { Choice } from "../../parts/Choice";
import type { PutDown } from "./usePutDown";

/** Loads, and whether the neutral is off its bar: both change what every later reading means. */
export function LoadsOut({ sheet, putDown }: { sheet: Sheet; putDown: PutDown }) {
  const practice = usePractice(sheet.practice);
  const [loads, setLoads] = useState(sheet.loads ?? undefined);
  const [neutral, setNeutral] = useState(sheet.neutral ?? undefined);
  const say = (said: { loads?: Sheet["loads"]; neutral?: Sheet["neutral"] }) => {
    const both = { loads, neutral, ...said };
    setLoads(both.loads ?? undefined);
    setNeutral(both.neutral ?? undefined);
    if (both.loads && both.neutral)
      putDown.put(
        { type: "loads", loads: both.loads, neutral: both.neutral },
        `Loads ${both.loads}, neutral ${both.neutral}`,
      );
  };
  return (
    <>
      <Choice
        label="Lamps, electronics and everything plugged in"
        value={loads}
        onChange={(value) => say({ loads: value })}
        data={[
          { value: "disconnected", label: "All out" },
          { value: "connected", label: "Still in" },
        ]}
      />
      <Choice
        label="The circuit's neutral"
        value={neutral}
        onChange={(value) => say({ neutral: value })}
        data={[
          { value: "lifted", label: "Off its bar" },
          { value: "connected", label: "On its bar" },
        ]}
      />
      <p className="quiet">
        With the neutral connected it is joined to {practice ? wordOf(practice, "earth") : "earth"} at the
        board, so nothing measured between the two says anything.
      </p>
    </>
  );
}
