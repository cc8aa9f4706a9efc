import { Button, Textarea, TextInput } from "@mantine/core";
import { useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import client, { answer, type Plannable } from "../../api/client";
import { newId } from "../../api/ids";
import { usePlannable, useSitesInUse } from "../../api/queries";
import { VISIT } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { BeginForm } from "../../parts/BeginForm";
import { Failure } from "../../parts/Failure";
import { SiteChoice } from "../../parts/SiteChoice";
import { Toggle } from "../../parts/Toggle";
import { VerdictShape, WORDS } from "../../parts/VerdictShape";
import { dayOf } from "../../reading/dates";
import { dueSince, today } from "./due";
import classes from "./Record.module.css";

const WORKS = { "dead-tests": "Dead tests", "live-tests": "Live tests" } as const;
type Work = keyof typeof WORKS;

/** Why, when, which circuits and what of them: the application makes the order. */
export function PlanVisit() {
  const [asked] = useSearchParams();
  const sites = useSitesInUse();
  const [siteId, setSite] = useState(asked.get("site") ?? "");
  const plannable = usePlannable(siteId);
  const [why, setWhy] = useState("");
  const [day, setDay] = useState(today());
  const [works, setWorks] = useState<Work[]>(["dead-tests", "live-tests"]);
  const [circuits, setCircuits] = useState<string[]>([]);
  const id = useRef(newId());
  const navigate = useNavigate();
  const plan = useRecord(VISIT, () =>
    answer(
      client.PUT("/api/visits/{visit_id}", {
        params: { path: { visit_id: id.current } },
        body: { site: siteId, why, planned_for: day, circuits, works },
      }),
    ),
  );
  if (sites.isError && !sites.data) return <Failure error={sites.error} retry={() => sites.refetch()} />;
  const toggle = <T,>(list: T[], one: T) =>
    list.includes(one) ? list.filter((each) => each !== one) : [...list, one];
  return (
    <BeginForm
      title="Plan a visit"
      back={["/record", "Record"]}
      sites={sites.data?.length}
      needs="outlets"
      button="Plan it"
      names={{ why: "Why:", circuits: "Circuits:" }}
      ready={siteId !== "" && why.trim() !== "" && circuits.length > 0 && works.length > 0 && day !== ""}
      pending={plan.isPending}
      error={plan.error}
      onBegin={() => plan.mutate(undefined, { onSuccess: (visit) => navigate(`/record/visits/${visit.id}`) })}
    >
      <SiteChoice
        sites={sites.data ?? []}
        chosen={siteId}
        onChoose={(chosen) => {
          setSite(chosen);
          setCircuits([]);
        }}
      />
      <Textarea
        label="Why"
        description="In the words of whoever called."
        value={why}
        onChange={(event) => setWhy(event.currentTarget.value)}
        maxLength={400}
        autosize
        minRows={2}
      />
      <TextInput
        label="Day"
        type="date"
        value={day}
        onChange={(event) => setDay(event.currentTarget.value)}
      />
      <fieldset className={classes.choices}>
        <legend>What is to be done</legend>
        {(Object.keys(WORKS) as Work[]).map((work) => (
          <Toggle key={work} on={works.includes(work)} onToggle={() => setWorks(toggle(works, work))}>
            {WORKS[work]}
          </Toggle>
        ))}
      </fieldset>
      {siteId !== "" && plannable.data?.length === 0 && (
        <p>This site has no circuit with points yet. Add them on Site first.</p>
      )}
      {plannable.data && plannable.data.length > 0 && (
        <Circuits
          circuits={plannable.data}
          chosen={circuits}
          onChoose={setCircuits}
          onToggle={(circuit) => setCircuits(toggle(circuits, circuit))}
        />
      )}
    </BeginForm>
  );
}

function Circuits(props: {
  circuits: Plannable[];
  chosen: string[];
  onChoose: (circuits: string[]) => void;
  onToggle: (circuit: string) => void;
}) {
  const [since, setSince] = useState("");
  const choose = (which: (circuit: Plannable) => boolean) =>
    props.onChoose(props.circuits.filter(which).map((circuit) => circuit.id));
  return (
    <fieldset className={classes.circuits}>
      <legend>Circuits</legend>
      <div className={classes.picks}>
        <Button variant="default" onClick={() => choose(() => true)}>
          All
        </Button>
        <Button variant="default" onClick={() => choose((circuit) => !circuit.safe)}>
          Not safe yet
        </Button>
        <TextInput
          label="Not tested since"
          type="date"
          value={since}
          onChange={(event) => {
            const day = event.currentTarget.value;
            setSince(day);
            if (day) choose((circuit) => dueSince(circuit.last_tested, day));
          }}
        />
      </div>
      <ul>
        {props.circuits.map((circuit) => (
          <li key={circuit.id}>
            <label className={classes.circuit}>
              <input
                type="checkbox"
                checked={props.chosen.includes(circuit.id)}
                onChange={() => props.onToggle(circuit.id)}
              />
              <VerdictShape kind={circuit.worst} size={22} />
              <span>
                <strong>{circuit.name}</strong>
                <span className="quiet">
                  {" "}
                  {circuit.board}, {circuit.points === 1 ? "1 point" : `${circuit.points} points`}. Worst:{" "}
                  {(WORDS[circuit.worst] ?? circuit.worst).toLowerCase()}.{" "}
                  {circuit.last_tested ? `Last tested ${dayOf(circuit.last_tested)}.` : "Never tested."}
                </span>
              </span>
            </label>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
