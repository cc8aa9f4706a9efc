import { Button, NativeSelect, Text, TextInput } from "@mantine/core";
import { useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import client, { answer, type HuntLine } from "../../api/client";
import { newId } from "../../api/ids";
import { useIntake, usePractice, useSite, useSitesInUse } from "../../api/queries";
import { HUNT } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import starting from "../../parts/Begin.module.css";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { SiteChoice } from "../../parts/SiteChoice";
import { circuitsOf } from "../site/circuits";
import classes from "./Hunts.module.css";
import { KINDS, sentence } from "./words";

type Conductor = "L" | "N" | "PE";
const PAIRS: Conductor[][] = [
  ["L", "PE"],
  ["L", "N"],
  ["N", "PE"],
];

/** The short question that opens a hunt: where, and what happened. */
export function BeginHunt() {
  const [asked] = useSearchParams();
  const sites = useSitesInUse();
  const [siteId, setSite] = useState(asked.get("site") ?? "");
  const [circuit, setCircuit] = useState(asked.get("circuit") ?? "");
  const [happened, setHappened] = useState("");
  const [kind, setKind] = useState<HuntLine["kind"] | "">("");
  const [pair, setPair] = useState("L PE");
  const [told, tell] = useState({ also_dead: "", done_last: "" });
  const site = useSite(siteId || undefined);
  const letters = usePractice(site.data?.practice)?.letters ?? {};
  const intake = useIntake(circuit);
  const navigate = useNavigate();
  const id = useRef(newId());
  const row = intake.data?.happened.find((one) => one.id === happened);
  const hunted = kind || row?.hunts[0];
  const begin = useRecord(HUNT, () =>
    answer(
      client.PUT("/api/hunts/{hunt_id}", {
        params: { path: { hunt_id: id.current } },
        body: {
          circuit,
          happened: happened as NonNullable<typeof row>["id"],
          kind: hunted as HuntLine["kind"],
          between: pair.split(" ") as [Conductor, Conductor],
          ...told,
          note: "",
        },
      }),
    ),
  );
  if (sites.isError && !sites.data) return <Failure error={sites.error} retry={() => sites.refetch()} />;
  return (
    <Page title="Begin a hunt" back={["/hunts", "Hunt"]} busy={sites.isPending}>
      <form
        className={starting.form}
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate(undefined, { onSuccess: (hunt) => navigate(`/hunts/${hunt.id}`) });
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
          <fieldset className={classes.happened}>
            <legend>What happened?</legend>
            {intake.data.happened
              .filter((one) => one.hunts.length > 0)
              .map((one) => (
                <label key={one.id}>
                  <input
                    type="radio"
                    name="happened"
                    checked={happened === one.id}
                    onChange={() => {
                      setHappened(one.id);
                      setKind("");
                    }}
                  />
                  {one.title}
                </label>
              ))}
          </fieldset>
        )}
        {row && (
          <>
            <p className={classes.first}>{row.first}</p>
            {row.hunts.length > 1 && (
              <NativeSelect
                label="Hunt for"
                value={hunted}
                onChange={(event) => setKind(event.currentTarget.value as HuntLine["kind"])}
                data={row.hunts.map((one) => ({ value: one, label: sentence(KINDS[one]) }))}
              />
            )}
            {hunted === "short" && (
              <NativeSelect
                label="Between"
                value={pair}
                onChange={(event) => setPair(event.currentTarget.value)}
                data={PAIRS.map((two) => ({
                  value: two.join(" "),
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
        {begin.error && (
          <Text role="alert" className={classes.wrong}>
            {begin.error.problems.map((p) => p.text).join(" ")}
          </Text>
        )}
        {sites.data?.length === 0 && (
          <Text>
            There is no site yet. <Link to="/sites">Add one</Link> with its circuits and points first.
          </Text>
        )}
        <Button type="submit" className={starting.main} disabled={!hunted} loading={begin.isPending}>
          Begin
        </Button>
      </form>
    </Page>
  );
}
