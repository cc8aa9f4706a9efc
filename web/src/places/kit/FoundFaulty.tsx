import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import client, { answer, type Leaning, type TesterPage } from "../../api/client";
import { useLeaning } from "../../api/queries";
import { FAULT } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { TwoTapButton } from "../../parts/TwoTapButton";
import { Unplaced } from "../../parts/Unplaced";
import { VerdictShape, WORDS } from "../../parts/VerdictShape";
import { dayAndTimeOf } from "../../reading/dates";
import classes from "./FoundFaulty.module.css";

/** By this device's clock, as the field for a day and a time has it. */
function local(at: string | null): string {
  const day = at ? new Date(at) : new Date();
  return new Date(day.getTime() - day.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

/** What is wrong with it, since when it may have been, and what leans on it: shown before anything is changed. */
export function FoundFaulty({ page, done }: { page: TesterPage; done: () => void }) {
  const { tester } = page;
  const [what, setWhat] = useState("");
  const [since, setSince] = useState(local(page.good_until));
  const from = since ? new Date(since).toISOString() : "";
  const leaning = useLeaning(tester.id, from);
  const save = useRecord(FAULT, (_: undefined, { id }) =>
    answer(
      client.PUT("/api/testers/{tester_id}/faults/{fault_id}", {
        params: { path: { tester_id: tester.id, fault_id: id } },
        body: { what, since: from },
      }),
    ),
  );
  return (
    <div className={classes.form}>
      <TextInput
        label="What is wrong with it"
        value={what}
        onChange={(event) => setWhat(event.currentTarget.value)}
        maxLength={400}
        data-autofocus
      />
      <TextInput
        label="It may have been since"
        description={
          page.good_until
            ? `It was last known to be good on ${dayAndTimeOf(page.good_until)}.`
            : "It was never checked or proved on record: choose a time before its first reading."
        }
        type="datetime-local"
        value={since}
        onChange={(event) => setSince(event.currentTarget.value)}
      />
      {leaning.isFetching ? (
        <p role="status">Looking what leans on it…</p>
      ) : (
        leaning.data && <WhatLeans leaning={leaning.data} />
      )}
      <Unplaced error={save.error} />
      <TwoTapButton
        variant="filled"
        asks="It is faulty"
        again="Tap again: nothing it showed since then counts"
        disabled={what.trim() === "" || from === "" || save.isPending}
        onTapped={() => save.mutate(undefined, { onSuccess: done })}
      />
    </div>
  );
}

/** Points and proofs by how much they lose. */
export function WhatLeans({ leaning }: { leaning: Leaning }) {
  const leans = leaning.points.filter((point) => point.leans);
  const readings = leaning.points.reduce((all, point) => all + point.readings + point.dead_tests, 0);
  if (leaning.points.length === 0 && leaning.proofs.length === 0)
    return <p>Nothing on record was taken with it since then.</p>;
  return (
    <section aria-label="What leans on it">
      <p>
        <strong>
          {readings === 1 ? "1 reading" : `${readings} readings`} at{" "}
          {leaning.points.length === 1 ? "1 point" : `${leaning.points.length} points`} since then.{" "}
          {leans.length === 0 ? "No verdict leans on it." : `${leans.length} to take again:`}
        </strong>
      </p>
      <ul className={classes.leans}>
        {leans.map((point) => (
          <li key={point.id}>
            <VerdictShape kind={point.without} size={22} />
            <span>
              <Link to={`/bench/${point.id}`}>{point.name}</Link>
              <span className="quiet">
                {" "}
                {point.circuit}, {point.site}: {(WORDS[point.verdict] ?? point.verdict).toLowerCase()},
                without it {(WORDS[point.without] ?? point.without).toLowerCase()}
              </span>
            </span>
          </li>
        ))}
        {leaning.proofs
          .filter((proof) => proof.state !== proof.without)
          .map((proof) => (
            <li key={proof.id}>
              <VerdictShape kind="void" size={22} />
              <span>
                <Link to={`/prove-dead/${proof.id}`}>{proof.name}</Link>
                <span className="quiet">
                  {" "}
                  proof of isolation, {proof.site}: {proof.state.replace("-", " ")}, without it{" "}
                  {proof.without.replace("-", " ")}
                </span>
              </span>
            </li>
          ))}
      </ul>
    </section>
  );
}

/** Faults on record, and the way back. */
export function Faults({ page, onFound }: { page: TesterPage; onFound: () => void }) {
  const { tester, faults } = page;
  const [why, setWhy] = useState("");
  const isFaulty = faults[0]?.since != null;
  const leaning = useLeaning(tester.id, isFaulty ? (faults[0]?.since ?? "") : "");
  const good = useRecord(FAULT, (_: undefined, { id }) =>
    answer(
      client.PUT("/api/testers/{tester_id}/faults/{fault_id}", {
        params: { path: { tester_id: tester.id, fault_id: id } },
        body: { what: why, since: null },
      }),
    ),
  );
  return (
    <>
      {faults.length === 0 && <p className="quiet">It was never found faulty.</p>}
      <ul className={classes.leans}>
        {faults.map((fault) => (
          <li key={fault.at}>
            <VerdictShape kind={fault.since ? "hazard" : "safe"} size={22} />
            <span>
              {fault.since
                ? `Faulty: ${fault.what}. Suspect since ${dayAndTimeOf(fault.since)}.`
                : `Good: ${fault.what}.`}
              <span className="quiet">
                {" "}
                {dayAndTimeOf(fault.at)}, {fault.by}
              </span>
            </span>
          </li>
        ))}
      </ul>
      {isFaulty && leaning.data && <WhatLeans leaning={leaning.data} />}
      {isFaulty ? (
        <form
          className={classes.form}
          onSubmit={(event) => {
            event.preventDefault();
            good.mutate(undefined, { onSuccess: () => setWhy("") });
          }}
        >
          <TextInput
            label="It is good after all, because"
            value={why}
            onChange={(event) => setWhy(event.currentTarget.value)}
            maxLength={400}
          />
          <Unplaced error={good.error} />
          <Button type="submit" variant="default" disabled={why.trim() === ""} loading={good.isPending}>
            What it showed counts again
          </Button>
        </form>
      ) : (
        <Button variant="default" onClick={onFound}>
          Found faulty
        </Button>
      )}
    </>
  );
}
