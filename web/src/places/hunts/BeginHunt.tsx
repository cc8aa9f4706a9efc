import { NativeSelect, TextInput } from "@mantine/core";
import { useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import client, { answer, type HuntLine, type Intake } from "../../api/client";
import { newId } from "../../api/ids";
import { useIntake, usePractice, useSite, useSitesInUse } from "../../api/queries";
import { HUNT } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { BeginForm } from "../../parts/BeginForm";
import { Failure } from "../../parts/Failure";
import { SiteChoice } from "../../parts/SiteChoice";
import { circuitsOf } from "../site/circuits";
import classes from "./Hunts.module.css";
import { pairsOf, sentence } from "./words";

/** The short question that opens a hunt: where, and what happened. */
export function BeginHunt() {
  const [asked] = useSearchParams();
  const sites = useSitesInUse();
  const [siteId, setSite] = useState(asked.get("site") ?? "");
  const [circuit, setCircuit] = useState(asked.get("circuit") ?? "");
  const [happened, setHappened] = useState<Happened["id"] | "">("");
  const [kind, setKind] = useState<HuntLine["kind"] | "">("");
  const [pair, setPair] = useState("");
  const [told, tell] = useState({ also_dead: "", done_last: "" });
  const site = useSite(siteId || undefined);
  const letters = usePractice(site.data?.practice)?.letters ?? {};
  const intake = useIntake(circuit);
  const navigate = useNavigate();
  const id = useRef(newId());
  const row = intake.data?.happened.find((one) => one.id === happened);
  const hunted = row?.hunts.find((one) => one.id === kind) ?? row?.hunts[0];
  const pairs = hunted ? pairsOf(hunted.between) : [];
  const begin = useRecord(HUNT, (what: { happened: Happened["id"]; kind: HuntLine["kind"] }) =>
    answer(
      client.PUT("/api/hunts/{hunt_id}", {
        params: { path: { hunt_id: id.current } },
        body: { circuit, ...what, between: pairs[Number(pair)] ?? null, ...told, note: "" },
      }),
    ),
  );
  if (sites.isError && !sites.data) return <Failure error={sites.error} retry={() => sites.refetch()} />;
  return (
    <BeginForm
      title="Begin a hunt"
      back={["/hunts", "Hunt"]}
      sites={sites.data?.length}
      needs="points"
      ready={hunted !== undefined}
      pending={begin.isPending}
      error={begin.error}
      onBegin={() => {
        if (row && hunted)
          begin.mutate(
            { happened: row.id, kind: hunted.id },
            { onSuccess: (hunt) => navigate(`/hunts/${hunt.id}`) },
          );
      }}
    >
      <SiteChoice
        sites={sites.data ?? []}
        chosen={siteId}
        onChoose={(chosen) => {
          setSite(chosen);
          setCircuit("");
        }}
      />
      <NativeSelect
        label="Circuit"
        value={circuit}
        onChange={(event) => setCircuit(event.currentTarget.value)}
        disabled={!site.data}
        data={[{ value: "", label: "Choose a circuit" }, ...(site.data ? circuitsOf(site.data) : [])]}
      />
      {intake.data && (
        <WhatHappened
          rows={intake.data.happened}
          chosen={happened}
          onChoose={(chosen) => {
            setHappened(chosen);
            setKind("");
            setPair("");
          }}
        />
      )}
      {row && hunted && (
        <>
          <p className={classes.first}>{row.first}</p>
          {row.hunts.length > 1 && (
            <NativeSelect
              label="Hunt for"
              value={hunted.id}
              onChange={(event) => {
                setKind(event.currentTarget.value as HuntLine["kind"]);
                setPair("");
              }}
              data={row.hunts.map((one) => ({ value: one.id, label: sentence(one.title) }))}
            />
          )}
          {pairs.length > 0 && (
            <NativeSelect
              label="Between"
              value={pair || "0"}
              onChange={(event) => setPair(event.currentTarget.value)}
              data={pairs.map((two, number) => ({
                value: `${number}`,
                label: two.map((one) => letters[one] ?? one).join(" and "),
              }))}
            />
          )}
          <TextInput
            label="What else went dead?"
            value={told.also_dead}
            onChange={(event) => tell({ ...told, also_dead: event.currentTarget.value })}
          />
          <TextInput
            label="What was done last?"
            value={told.done_last}
            onChange={(event) => tell({ ...told, done_last: event.currentTarget.value })}
          />
        </>
      )}
    </BeginForm>
  );
}

type Happened = Intake["happened"][number];

/** What can be hunted along a run. */
function WhatHappened(props: { rows: Happened[]; chosen: string; onChoose: (id: Happened["id"]) => void }) {
  return (
    <fieldset className={classes.happened}>
      <legend>What happened?</legend>
      {props.rows
        .filter((one) => one.hunts.length > 0)
        .map((one) => (
          <label key={one.id}>
            <input
              type="radio"
              name="happened"
              checked={props.chosen === one.id}
              onChange={() => props.onChoose(one.id)}
            />
            {one.title}
          </label>
        ))}
    </fieldset>
  );
}
