import { Button, NativeSelect, Text, TextInput, Title } from "@mantine/core";
import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import client, { answer, type ProofIn, type Site } from "../../api/client";
import { newId } from "../../api/ids";
import { usePractice, useProofReference, useSite, useSitesInUse } from "../../api/queries";
import { PROOF } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Choice } from "../../parts/Choice";
import { Page } from "../../parts/Page";
import { Unplaced } from "../../parts/Unplaced";
import classes from "./Begin.module.css";
import shared from "./Prove.module.css";
import { WHAT_WORDS } from "./words";

const PLACED = ["name", "asked.", "sources[0].label"];

type Question = NonNullable<ReturnType<typeof useProofReference>["data"]>["questions"][number];
type Answer = { yes: boolean | null; label: string };
type Circuit = { supply: string; id: string | null; name: string; board: string; rating: number | null };

const WHATS = Object.keys(WHAT_WORDS) as (keyof typeof WHAT_WORDS)[];

/** What is to be dead, and every source that may reach it, each asked for by name. */
export function Begin() {
  const sites = useSitesInUse();
  const questions = useProofReference().data?.questions;
  const [query] = useSearchParams();
  const [chosen, choose] = useState<string | null>(query.get("site"));
  const siteId = chosen ?? sites.data?.[0]?.id;
  const site = useSite(siteId);
  return (
    <Page
      title="What are you isolating?"
      back={["/prove-dead", "Prove dead"]}
      actions={
        sites.data &&
        sites.data.length > 0 && (
          <NativeSelect
            aria-label="Site"
            value={siteId}
            onChange={(event) => choose(event.currentTarget.value)}
            data={sites.data.map((s) => ({ value: s.id, label: s.name }))}
          />
        )
      }
    >
      {sites.data?.length === 0 && (
        <Text size="lg" mt="lg">
          A proof belongs to a site with its supply. <Link to="/sites">Add the site first</Link>.
        </Text>
      )}
      {site.data && questions && (
        <BeginAt key={site.data.id} site={site.data} circuit={query.get("circuit")} questions={questions} />
      )}
    </Page>
  );
}

function BeginAt({
  site,
  circuit,
  questions,
}: {
  site: Site;
  circuit: string | null;
  questions: Question[];
}) {
  const practice = usePractice(site.practice);
  const navigate = useNavigate();
  const [id] = useState(() => newId());
  const circuits = circuitsOf(site);
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      circuits.findIndex((c) => c.id !== null && c.id === circuit),
    ),
  );
  const on = circuits[at];
  const [what, setWhat] = useState<ProofIn["what"]>("circuit");
  const [name, setName] = useState<string | null>(null);
  const [conductors, setConductors] = useState<string | null>(null);
  const [place, setPlace] = useState<ProofIn["place"]>("installation");
  const [casing, setCasing] = useState("no");
  const [wet, setWet] = useState("dry");
  const [source, setSource] = useState<string | null>(null);
  const [answers, setAnswers] = useState<Record<string, Answer>>({});
  const system = site.supplies.find((s) => s.id === on?.supply)?.system;
  const lines = practice?.systems.find((s) => s.id === system)?.lines ?? ["L"];
  const choices = conductorsOf(lines, practice?.letters ?? {});
  const terminals = conductors ?? choices.at(-1)?.value ?? "L N PE";
  const named = name ?? on?.name ?? "";
  const device = source ?? (on ? `${on.board}${on.rating ? `, ${on.rating} A` : ""}` : "");

  const begin = useRecord(PROOF, () =>
    answer(
      client.PUT("/api/proofs/{proof_id}", {
        params: { path: { proof_id: id } },
        body: {
          supply: on?.supply ?? "",
          circuit: on?.id ?? null,
          name: named,
          what,
          terminals: [...terminals.split(" "), ...(casing === "yes" ? ["CASE"] : [])],
          place,
          wet: wet === "wet",
          sources: [
            { id: "s1", label: device, kind: "device" },
            ...questions
              .filter((q) => answers[q.kind]?.yes)
              .map((q, i) => ({ id: `s${i + 2}`, label: answers[q.kind]?.label ?? "", kind: q.kind })),
          ],
          asked: Object.fromEntries(
            questions.flatMap((q) => {
              const yes = answers[q.kind]?.yes;
              return yes === null || yes === undefined ? [] : [[q.kind, yes]];
            }),
          ),
        },
      }),
    ),
  );
  const wrong = (path: string) => begin.error?.at(path);
  if (!on)
    return (
      <Text mt="lg">
        This site has no board yet. <Link to={`/sites/${site.id}`}>Add one first</Link>.
      </Text>
    );
  return (
    <form
      className={classes.columns}
      onSubmit={(event) => {
        event.preventDefault();
        begin.mutate(undefined, {
          onSuccess: (proof) => {
            navigate(`/prove-dead/${proof.id}`);
          },
        });
      }}
    >
      <div>
        <NativeSelect
          mt="md"
          label="Circuit or board"
          value={String(at)}
          onChange={(event) => {
            setAt(Number(event.currentTarget.value));
            setConductors(null);
          }}
          data={circuits.map((c, i) => ({
            value: String(i),
            label: c.id ? `${c.name}, ${c.board}` : c.name,
          }))}
        />
        <div className={shared.two}>
          <Choice
            label="It is a"
            value={what}
            onChange={setWhat}
            data={WHATS.map((value) => ({ value, label: WHAT_WORDS[value] }))}
          />
          <TextInput
            mt="sm"
            label="Name"
            required
            value={named}
            error={wrong("name")}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        </div>
        <div className={shared.two}>
          <NativeSelect
            mt="sm"
            label="Conductors to be dead"
            value={terminals}
            onChange={(event) => setConductors(event.currentTarget.value)}
            data={choices}
          />
          <NativeSelect
            mt="sm"
            label="Where on the installation"
            value={place}
            onChange={(event) => setPlace(event.currentTarget.value as ProofIn["place"])}
            data={[
              { value: "installation", label: "Outlets, boards, machines" },
              { value: "origin", label: "Origin: meter, service, outdoor run" },
              { value: "plugged-in", label: "Something plugged in" },
            ]}
          />
        </div>
        <div className={shared.two}>
          <Choice
            label="Metal casing"
            value={casing}
            onChange={setCasing}
            data={[
              { value: "no", label: "None here" },
              { value: "yes", label: "Test it too" },
            ]}
          />
          <Choice
            label="The place is"
            value={wet}
            onChange={setWet}
            data={[
              { value: "dry", label: "Dry" },
              { value: "wet", label: "Wet" },
            ]}
          />
        </div>
      </div>
      <div>
        <Title order={2} size={20} mt="md" mb={4}>
          What reaches it?
        </Title>
        <TextInput
          mb="md"
          label="Its own device"
          required
          value={device}
          error={wrong("sources[0].label")}
          onChange={(event) => setSource(event.currentTarget.value)}
        />
        {questions.map((question) => {
          const given = answers[question.kind] ?? { yes: null, label: "" };
          const set = (change: Partial<Answer>) =>
            setAnswers((was) => ({ ...was, [question.kind]: { ...given, ...change } }));
          return (
            <div key={question.kind} className={classes.question}>
              <div className={classes.asked}>
                <span>{question.asks}</span>
                <Choice
                  hideLabel
                  label={question.asks}
                  value={given.yes === null ? "" : given.yes ? "yes" : "no"}
                  onChange={(yes) => set({ yes: yes === "yes" })}
                  data={[
                    { value: "no", label: "No" },
                    { value: "yes", label: "Yes" },
                  ]}
                />
              </div>
              {given.yes && (
                <TextInput
                  mt="xs"
                  label="Which, and where it is switched"
                  required
                  value={given.label}
                  onChange={(event) => set({ label: event.currentTarget.value })}
                />
              )}
              {wrong(`asked.${question.kind}`) && (
                <p className={shared.wrong} role="alert">
                  {wrong(`asked.${question.kind}`)}
                </p>
              )}
            </div>
          );
        })}
        <Unplaced error={begin.error} placed={PLACED} />
        <div className={classes.go}>
          <Button
            variant="default"
            onClick={() =>
              setAnswers((was) => ({
                ...Object.fromEntries(questions.map((q) => [q.kind, { yes: false, label: "" }])),
                ...Object.fromEntries(Object.entries(was).filter(([, given]) => given.yes)),
              }))
            }
          >
            I checked each: no to the rest
          </Button>
          <Button type="submit" className={shared.main} loading={begin.isPending}>
            Begin
          </Button>
        </div>
      </div>
    </form>
  );
}

function circuitsOf(site: Site): Circuit[] {
  return site.supplies.flatMap((supply) =>
    supply.boards.flatMap((board) => [
      ...board.circuits.map((circuit) => ({
        supply: supply.id,
        id: circuit.id,
        name: circuit.name,
        board: board.name,
        rating: circuit.rating_a,
      })),
      { supply: supply.id, id: null, name: board.name, board: `Feed of ${board.name}`, rating: null },
    ]),
  );
}

/** From one line to all the supply has, the most last. */
function conductorsOf(lines: string[], letters: Record<string, string>) {
  const sets = lines.length === 1 ? [lines] : [["L"], ...lines.slice(1).map((_, i) => lines.slice(0, i + 2))];
  return sets.map((set) => {
    const all = [...set, "N", "PE"];
    return { value: all.join(" "), label: all.map((t) => letters[t] ?? t).join(", ") };
  });
}
