import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import client, { answer, type Tester } from "../../api/client";
import { keys } from "../../api/keys";
import folds from "../../parts/Fold.module.css";
import { VerdictShape } from "../../parts/VerdictShape";
import classes from "./Capabilities.module.css";

/** What the tester in the hand can and cannot strike out at this point; asked for when it is opened. */
export function Capabilities({
  pointId,
  tester,
  readings,
}: {
  pointId: string;
  tester: Tester;
  readings: number;
}) {
  const [open, setOpen] = useState(false);
  const found = useQuery({
    queryKey: keys.capabilities(pointId, tester.id, readings),
    enabled: open,
    queryFn: () =>
      answer(
        client.GET("/api/points/{point_id}/capabilities/{tester_id}", {
          params: { path: { point_id: pointId, tester_id: tester.id } },
        }),
      ),
  });
  const lists =
    found.data &&
    ([
      ["can rule out here", found.data.can],
      ["cannot", found.data.cannot],
    ] as const);
  return (
    <details
      className={`${folds.fold} ${classes.found}`}
      open={open}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary>What {tester.label} can tell here</summary>
      {found.isError && <p role="alert">It could not be worked out. Close this and open it again.</p>}
      {found.isPending && open && <p className="quiet">Working it out</p>}
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
      {found.data && <p className={folds.reason}>Blind to: {found.data.blind_to.join("; ")}.</p>}
    </details>
  );
}
