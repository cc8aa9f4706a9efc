import { NativeSelect, TextInput } from "@mantine/core";
import { useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import client, { answer, type HuntIn, type HuntLine, type Intake } from "../../api/client";
import { newId } from "../../api/ids";
import { useIntake, usePractice, useSite, useSitesInUse } from "../../api/queries";
import { HUNT } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { BeginForm } from "../../parts/BeginForm";
import { Failure } from "../../parts/Failure";
import { SiteChoice } from "../../parts/SiteChoice";
import { sentence } from "../../reading/sentence";
import { boardsOf, circuitsOf } from "../site/circuits";
import { BoardForm } from "./board/BoardForm";
import { boardOf, NOTHING_TYPED } from "./board/typed";
import { ChainForm } from "./chain/ChainForm";
import { chainOf, EMPTY_ELEMENT, isTyped, type TypedChain } from "./chain/typed";
import classes from "./Hunts.module.css";
import { pairsOf } from "./words";

/** Of what may be refused, as it is asked for. */
const NAMES = {
  supply_v: "Volts at the feed",
  rated_v: "Rated",
  id: "Name",
  ways: "Ways",
  outlets: "Outlets",
};
type Happened = Intake["happened"][number];

/** The short question that opens a hunt: what happened, and where. */
export function BeginHunt() {
  const [asked] = useSearchParams();
  const sites = useSitesInUse();
  const [siteId, setSite] = useState(asked.get("site") ?? "");
  const [place, setPlace] = useState(asked.get("circuit") ?? asked.get("board") ?? "");
  const [happened, setHappened] = useState<Happened["id"] | "">(
    (asked.get("happened") ?? "") as Happened["id"],
  );
  const [kind, setKind] = useState(asked.get("kind") ?? "");
  const [pair, setPair] = useState(asked.get("between") ?? "");
  const [chain, setChain] = useState<TypedChain>({ supply: "", elements: [EMPTY_ELEMENT] });
  const [typedBoard, setTypedBoard] = useState(NOTHING_TYPED);
  const [told, tell] = useState({ also_dead: "", done_last: "" });
  const site = useSite(siteId || undefined);
  const letters = usePractice(site.data?.practice)?.letters ?? {};
  const intake = useIntake(siteId);
  const navigate = useNavigate();
  const id = useRef(newId());
  const row = intake.data?.happened.find((one) => one.id === happened);
  const hunted = row?.hunts.find((one) => one.id === kind) ?? row?.hunts[0];
  const pairs = hunted ? pairsOf(hunted.between) : [];
  const onBoard = hunted?.along === "board";
  const board = onBoard
    ? site.data?.supplies.flatMap((supply) => supply.boards).find((one) => one.id === place)
    : undefined;
  const begin = useRecord(HUNT, (body: HuntIn) =>
    answer(client.PUT("/api/hunts/{hunt_id}", { params: { path: { hunt_id: id.current } }, body })),
  );
  if (sites.isError && !sites.data) return <Failure error={sites.error} retry={() => sites.refetch()} />;
  const body = (what: Happened, kind: HuntLine["kind"]): HuntIn => ({
    happened: what.id,
    kind,
    ...told,
    note: "",
    ...(board ? { board: board.id } : { circuit: place }),
    ...boardOf(board?.circuits ?? [], board ? typedBoard : NOTHING_TYPED),
    between: pairs.find((two) => two.join("-") === pair) ?? pairs[0] ?? null,
    chain: hunted?.along === "chain" ? chainOf(chain) : null,
  });
  const places = site.data ? (onBoard ? boardsOf(site.data) : circuitsOf(site.data)) : [];
  return (
    <BeginForm
      title="Begin a hunt"
      back={["/hunts", "Hunt"]}
      sites={sites.data?.length}
      needs="points"
      ready={hunted !== undefined && place !== "" && (hunted.along !== "chain" || isTyped(chain))}
      names={NAMES}
      pending={begin.isPending}
      error={begin.error}
      onBegin={() => {
        if (row && hunted)
          begin.mutate(body(row, hunted.id), { onSuccess: (hunt) => navigate(`/hunts/${hunt.id}`) });
      }}
    >
      <SiteChoice
        sites={sites.data ?? []}
        chosen={siteId}
        onChoose={(chosen) => {
          setSite(chosen);
          setPlace("");
        }}
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
                setKind(event.currentTarget.value);
                setPair("");
              }}
              data={row.hunts.map((one) => ({ value: one.id, label: sentence(one.title) }))}
            />
          )}
          <NativeSelect
            label={onBoard ? "Board" : "Circuit"}
            value={place}
            onChange={(event) => setPlace(event.currentTarget.value)}
            data={[{ value: "", label: onBoard ? "Choose a board" : "Choose a circuit" }, ...places]}
          />
          {pairs.length > 0 && (
            <NativeSelect
              label="Between"
              value={pair || pairs[0]?.join("-")}
              onChange={(event) => setPair(event.currentTarget.value)}
              data={pairs.map((two) => ({
                value: two.join("-"),
                label: two.map((one) => letters[one] ?? one).join(" and "),
              }))}
            />
          )}
          {hunted.along === "chain" && <ChainForm chain={chain} onChange={setChain} />}
          {board && <BoardForm board={board} typed={typedBoard} onChange={setTypedBoard} />}
          {!onBoard && (
            <>
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
        </>
      )}
    </BeginForm>
  );
}

function WhatHappened(props: { rows: Happened[]; chosen: string; onChoose: (id: Happened["id"]) => void }) {
  return (
    <fieldset className={classes.happened}>
      <legend>What happened?</legend>
      {props.rows.map((one) => (
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
