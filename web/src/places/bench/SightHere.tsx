import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import client, { answer, type Tester } from "../../api/client";
import folds from "../../parts/Fold.module.css";
import { VerdictShape } from "../../parts/VerdictShape";
import classes from "./SightHere.module.css";

/** What the tester in the hand can and cannot strike out at this point; asked for when it is opened. */
export function SightHere({
  pointId,
  tester,
  readings,
}: {
  pointId: string;
  tester: Tester;
  readings: number;
}) {
  const [open, setOpen] = useState(false);
  const sight = useQuery({
    queryKey: ["sight", pointId, tester.id, readings],
    enabled: open,
    queryFn: () =>
      answer(
        client.GET("/api/points/{point_id}/sight/{tester_id}", {
          params: { path: { point_id: pointId, tester_id: tester.id } },
        }),
      ),
  });
  const lists =
    sight.data &&
    ([
      ["can rule out here", sight.data.can],
      ["cannot", sight.data.cannot],
    ] as const);
  return (
    <details
      className={`${folds.fold} ${classes.sight}`}
      open={open}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary>What {tester.label} can tell here</summary>
      {sight.isError && <p role="alert">It could not be worked out. Close this and open it again.</p>}
      {sight.isPending && open && <p className="quiet">Working it out</p>}
      {lists?.map(([name, conditions]) => (
        <div key={name}>
          <h3>
            It {name}: {conditions.length === 0 && "nothing that is left"}
          </h3>
          <ul>
            {conditions.map((condition) => (
              <li key={condition.id}>
                <VerdictShape kind={condition.severity} size={16} />
                {condition.title}
              </li>
            ))}
          </ul>
        </div>
      ))}
      {sight.data && <p className={folds.reason}>Blind to: {sight.data.blind_to.join("; ")}.</p>}
    </details>
  );
}
