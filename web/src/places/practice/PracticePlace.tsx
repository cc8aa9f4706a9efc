import { Button, FileButton, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { CaseLine, PracticeList, Refusal } from "../../api/client";
import { useBeginning, usePracticeList } from "../../api/practice";
import { usePractice } from "../../api/queries";
import { addressOfCase } from "../../api/sandbox";
import { Failure } from "../../parts/Failure";
import { readFile } from "../../parts/files";
import { Page } from "../../parts/Page";
import { Unplaced } from "../../parts/Unplaced";
import { dayAndTimeOf, dayOf } from "../../reading/dates";
import classes from "./PracticePlace.module.css";
import { StepChoice } from "./StepChoice";
import { STEPS } from "./steps";

const CONCLUSIONS: Record<string, string> = {
  followed: "concluded from what was read",
  guessed: "right, but a guess",
  "left-open": "right, with more left open than needed",
  wrong: "wrong",
  ended: "ended in a danger",
};

/** What there is to practise: which comes next, every case by step, how each went, and how the crew's learners do. */
export function PracticePlace() {
  const list = usePracticeList();
  const { open, begin } = useBeginning();
  if (list.isError && !list.data) return <Failure error={list.error} retry={() => list.refetch()} />;
  const next = list.data?.cases.find((one) => one.name === list.data.next);
  const at = list.data?.went_through.find((one) => !one.over);
  return (
    <Page title="Practice" busy={list.isPending}>
      {list.data && (
        <>
          <p className={classes.lead}>
            A simulated installation with something hidden, the same screens and testers with their real
            errors. Nothing here is real, and nothing of it enters the record.
          </p>
          <div className={classes.next}>
            {at && (
              <Button component="a" href={addressOfCase(at.id)}>
                Go on with “{at.title}”
              </Button>
            )}
            {next && (
              <Button
                variant={at ? "default" : "filled"}
                loading={begin.isPending}
                onClick={() => open({ name: next.name })}
              >
                Next: {next.title}
              </Button>
            )}
          </div>
          <Unplaced error={begin.error} />
          {[1, 2, 3, 4].map((step) => (
            <section key={step} aria-labelledby={`step-${step}`}>
              <h2 id={`step-${step}`}>{STEPS[step]}</h2>
              <ul className={classes.cases}>
                {list.data.cases
                  .filter((one) => one.step === step)
                  .map((one) => (
                    <Case key={one.name} line={one} onOpen={() => open({ name: one.name })} />
                  ))}
              </ul>
            </section>
          ))}
          <Draw onDraw={(drawn) => open({ drawn })} />
          <OwnFile onFile={(content) => open({ case: content })} />
          <OwnLearnt list={list.data} />
          <Went list={list.data} />
          <Learners list={list.data} />
        </>
      )}
    </Page>
  );
}

function Case({ line, onOpen }: { line: CaseLine; onOpen: () => void }) {
  const practice = usePractice(line.practice);
  return (
    <li>
      <button type="button" className={classes.case} onClick={onOpen}>
        <strong>{line.title}</strong>
        <span className={classes.complaint}>{line.complaint}</span>
        <span className={classes.about}>
          {practice?.name} · {line.minutes} min ·{" "}
          {line.times === 0
            ? "new"
            : line.mastered
              ? `mastered${line.due ? `, comes back ${dayOf(line.due)}` : ""}`
              : "not yet mastered"}
        </span>
      </button>
    </li>
  );
}

const HIGHEST_SEED = 9999;

/** One of the cases without end; whoever says the same two numbers gets the same. */
function Draw({ onDraw }: { onDraw: (drawn: { step: number; seed: number }) => void }) {
  const [step, setStep] = useState("1");
  const [seed, setSeed] = useState(() => String(Math.ceil(Math.random() * HIGHEST_SEED)));
  return (
    <section aria-labelledby="draw">
      <h2 id="draw">Without end</h2>
      <p className={classes.lead}>
        A case drawn by chance. Whoever says the same step and number gets the same one: compare how you went.
      </p>
      <form
        className={classes.draw}
        onSubmit={(event) => {
          event.preventDefault();
          onDraw({ step: Number(step), seed: Number(seed) });
        }}
      >
        <StepChoice label="Step" value={step} onChange={setStep} />
        <TextInput
          label="Number"
          inputMode="numeric"
          value={seed}
          onChange={(event) => setSeed(event.currentTarget.value.replace(/\D/g, ""))}
        />
        <Button type="submit" variant="default" disabled={seed === ""}>
          Draw it
        </Button>
      </form>
    </section>
  );
}

/** A case somebody shared, as a file. */
function OwnFile({ onFile }: { onFile: (content: Record<string, unknown>) => void }) {
  const read = useMutation<Record<string, unknown>, Refusal, File>({
    mutationFn: readFile,
    onSuccess: onFile,
  });
  return (
    <section className={classes.own} aria-label="A case of a file">
      <FileButton onChange={(file) => file && read.mutate(file)} accept="application/json,.json">
        {(props) => (
          <Button {...props} variant="default">
            Open a case from a file
          </Button>
        )}
      </FileButton>
      <Unplaced error={read.error} />
    </section>
  );
}

function OwnLearnt({ list }: { list: PracticeList }) {
  if (list.learnt.about.length === 0) return null;
  return (
    <section aria-labelledby="learnt">
      <h2 id="learnt">What you have met</h2>
      <Learnt learnt={list.learnt} />
    </section>
  );
}

function Went({ list }: { list: PracticeList }) {
  if (list.went_through.length === 0) return null;
  return (
    <section aria-labelledby="went">
      <h2 id="went">Gone through</h2>
      <ul className={classes.went}>
        {list.went_through.map((one) => (
          <li key={one.id}>
            <a href={`${addressOfCase(one.id)}${one.over ? "debrief" : ""}`}>
              <strong>{one.title}</strong> {one.over ? CONCLUSIONS[one.conclusion] : "not finished"}
              <span className="quiet"> · {dayAndTimeOf(one.begun_at)}</span>
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}

const MET: [keyof PracticeList["learnt"], string][] = [
  ["about", "Cases"],
  ["testers", "Testers"],
  ["slips", "Slips"],
];

/** What was met, and whether it is mastered by now. */
function Learnt({ learnt }: { learnt: PracticeList["learnt"] }) {
  return (
    <dl className={classes.learnt}>
      {MET.filter(([of]) => learnt[of].length > 0).map(([of, title]) => (
        <div key={of}>
          <dt>{title}</dt>
          <dd>
            <ul>
              {learnt[of].map((one) => (
                <li key={one.name} data-mastered={one.mastered || undefined}>
                  <span aria-hidden>{one.mastered ? "✓" : "↻"}</span> {one.name}
                  <span className="quiet">
                    {" "}
                    {one.mastered ? (of === "slips" ? "not again" : "mastered") : "not yet"}
                  </span>
                </li>
              ))}
            </ul>
          </dd>
        </div>
      ))}
    </dl>
  );
}

function Learners({ list }: { list: PracticeList }) {
  if (list.learners.length === 0) return null;
  return (
    <section aria-labelledby="learners">
      <h2 id="learners">How your crew gets on</h2>
      <ul className={classes.went}>
        {list.learners.map((one) => (
          <li key={one.name}>
            <p>
              <strong>{one.name}</strong> · {one.cases} {one.cases === 1 ? "case" : "cases"}
              {one.last && `, last ${dayOf(one.last)}`}
            </p>
            <Learnt learnt={one.learnt} />
          </li>
        ))}
      </ul>
    </section>
  );
}
