import { useState } from "react";
import type { AlongRun, Hunt } from "../../../api/client";
import classes from "../Hunts.module.css";
import { Meter } from "../Meter";

/** What the meter on the wire shows on each side of a box that is taken apart; the outcome is for a person to tap. */
export function Sides({
  hunt,
  run,
  at,
  tester,
}: {
  hunt: Hunt;
  run: AlongRun;
  at: string;
  tester: string | undefined;
}) {
  const [shown, show] = useState<Record<string, string>>({});
  const [from, to] = run.between;
  const sides = at === "board" ? (["onward"] as const) : (["feed", "onward"] as const);
  if (!tester || !from || !to) return null;
  return (
    <div className={classes.sides}>
      {sides.map((side) => (
        <span key={side}>
          <Meter
            hunt={hunt.id}
            tester={tester}
            probes={{ at, side, function: "ohms", from, to }}
            name={`the ${side} side`}
            onShown={(said) => show({ ...shown, [side]: said })}
          />
          {shown[side] !== undefined && (
            <b className="mono">
              {" "}
              {side} {shown[side] === "over" ? "over range" : `${shown[side]} Ω`}
            </b>
          )}
        </span>
      ))}
    </div>
  );
}
