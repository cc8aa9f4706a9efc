import { useState } from "react";
import { useNavigate } from "react-router";
import client, { answer, type Practice } from "../../api/client";
import { newId } from "../../api/ids";
import { useReference, useSitesInUse } from "../../api/queries";
import { OUTLET } from "../../api/records";
import { wordOf } from "../../api/reference";
import { useRecord } from "../../api/useRecord";
import { FacePicture } from "../../parts/Face";
import { Page } from "../../parts/Page";
import { Unplaced } from "../../parts/Unplaced";
import classes from "./MeasureNow.module.css";

/** An outlet as it looks, and straight on to measuring it: where it belongs can be said later. */
export function MeasureNow() {
  const practices = useReference().data?.practices ?? [];
  const sites = useSitesInUse();
  const navigate = useNavigate();
  const [id] = useState(() => newId());
  const make = useRecord(OUTLET, ({ practice, terminals }: { practice: Practice; terminals: string[] }) =>
    answer(
      client.PUT("/api/loose-outlets/{point_id}", {
        params: { path: { point_id: id } },
        body: { practice: practice.id, terminals },
      }),
    ),
  );
  const own = sites.data?.at(-1)?.practice;
  const ordered = [...practices].sort((a, b) => Number(b.id === own) - Number(a.id === own));
  return (
    <Page
      title="What does it look like?"
      back={["/today", "Today"]}
      under="Its supply is assumed from that until you say more. Treat it as live."
    >
      <Unplaced error={make.error} />
      {ordered.map((practice) => (
        <section key={practice.id} aria-labelledby={`practice-${practice.id}`} className={classes.practice}>
          <h2 id={`practice-${practice.id}`}>
            {practice.name}, {wordOf(practice, "outlet")}
          </h2>
          <div className={classes.faces}>
            {Object.keys(practice.outlets).map((contacts) => {
              const terminals = contacts.split(" ");
              const letters = terminals.map((t) => practice.letters[t] ?? t).join(", ");
              return (
                <button
                  key={contacts}
                  type="button"
                  className={classes.outlet}
                  disabled={make.isPending}
                  onClick={() =>
                    make.mutate(
                      { practice, terminals },
                      { onSuccess: (made) => navigate(`/bench/${made.id}`, { replace: true }) },
                    )
                  }
                >
                  <FacePicture practice={practice} terminals={terminals} />
                  <span>{letters}</span>
                </button>
              );
            })}
          </div>
        </section>
      ))}
    </Page>
  );
}
