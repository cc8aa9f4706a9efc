import { Anchor, Button } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import client, { answer, type Sheet, type TestLine } from "../../api/client";
import type { Moment } from "../../api/clock";
import { useCutOff } from "../../api/freshness";
import { useNamedTester } from "../../api/lastTester";
import { useLine } from "../../api/line";
import type { Waiting } from "../../api/outbox/waiting";
import { LOOK_AGAIN_MS, usePractice, useSheet } from "../../api/queries";
import { CASE } from "../../api/sandbox";
import { Failure } from "../../parts/Failure";
import folds from "../../parts/Fold.module.css";
import { SaveAs } from "../../parts/SaveAs";
import { useProofStanding } from "../../parts/useProofStanding";
import { VerdictShape } from "../../parts/VerdictShape";
import { WaitingList } from "../../parts/WaitingList";
import { WorkHeader } from "../../parts/WorkHeader";
import { dayAndTimeOf } from "../../reading/dates";
import { Discharge } from "./Discharge";
import { Gate } from "./Gate";
import { History } from "./History";
import { Leads } from "./Leads";
import { Lines } from "./Lines";
import { LoadsOut } from "./LoadsOut";
import { Look } from "./Look";
import { OnTheRun } from "./OnTheRun";
import { Outcome } from "./Outcome";
import { RingBars } from "./RingBars";
import { RingForm } from "./RingForm";
import classes from "./Sheet.module.css";
import { type PutBack, TestForm } from "./TestForm";
import { usePutDown } from "./usePutDown";

export function SheetPlace() {
  const { sheetId = "" } = useParams();
  const sheet = useSheet(sheetId);
  const cutOff = useCutOff(sheet, LOOK_AGAIN_MS);
  if (sheet.isError && !sheet.data) return <Failure error={sheet.error} retry={() => sheet.refetch()} />;
  if (!sheet.data) return <div className={classes.page} aria-busy="true" />;
  return <Working key={sheetId} sheet={sheet.data} cutOff={cutOff} />;
}

function Working({ sheet, cutOff }: { sheet: Sheet & { asked: Moment }; cutOff: number | null }) {
  const putDown = usePutDown(sheet);
  const [back, setBack] = useState<PutBack | null>(null);
  const firstOpen = sheet.steps.find((s) => !s.done)?.id ?? "clear";
  const lineDown = useLine();
  const [chosen, choose] = useState<string | null>(null);
  const [picked, pick] = useState<string | null>(null);
  const ohms = useNamedTester("ohms", sheet.testers);
  const insulation = useNamedTester("insulation", sheet.testers);
  const practice = usePractice(sheet.practice);
  const step = sheet.steps.find((s) => s.id === (chosen ?? firstOpen)) ?? sheet.steps[0];
  const steps = useRef<HTMLElement>(null);
  const at = step?.id;
  useEffect(() => {
    if (at)
      steps.current?.querySelector("[aria-current]")?.scrollIntoView({ inline: "center", block: "nearest" });
  }, [at]);
  if (!step) return null;
  const isUnsent = (line: TestLine) => putDown.unsent.some((entry) => entry.line === line.id);
  const lines = sheet.lines.filter((line) => line.step === step.id);
  const line = lines.find((l) => l.id === picked) ?? lines.find((l) => !l.taken && !l.left && !isUnsent(l));
  const goTo = (where: string) => {
    const owner = sheet.lines.find((l) => l.id === where);
    choose(owner?.step ?? (sheet.steps.some((s) => s.id === where) ? where : "clear"));
    pick(owner?.id ?? null);
  };
  const putBack = (one: Waiting) => {
    putDown.waiting.outbox.drop(one.id);
    const was = one.typed as PutBack;
    setBack(was);
    goTo(was.line);
  };
  const forInsulation = step.id === "insulation";
  const held = forInsulation ? insulation : ohms;
  const hand = { tester: held.tester?.id ?? null, onTester: held.name };
  const following = sheet.steps[sheet.steps.indexOf(step) + 1];

  return (
    <div className={classes.page}>
      <WorkHeader
        back={["/dead-tests", "Dead tests"]}
        under={`${sheet.site.name}, ${sheet.board}`}
        title={sheet.circuit.name}
      >
        <Standing sheet={sheet} asked={sheet.asked} cutOff={cutOff !== null} />
      </WorkHeader>
      <nav ref={steps} className={classes.steps} aria-label="In this order">
        <ol>
          {sheet.steps.map((s) => (
            <li key={s.id}>
              <button
                type="button"
                aria-current={s.id === step.id ? "step" : undefined}
                onClick={() => {
                  choose(s.id);
                  pick(null);
                }}
              >
                <VerdictShape kind={s.done ? "correct" : "untested"} size={18} />
                <span>
                  {s.title}
                  <span className="visually-hidden">{s.done ? ", done" : ", not done"}</span>
                </span>
              </button>
            </li>
          ))}
        </ol>
      </nav>
      <section className={classes.work} aria-label={step.title}>
        <h2>{step.title}</h2>
        <p className={classes.how}>{step.how}</p>
        {cutOff !== null && lineDown === null && (
          <p className={classes.warning} role="alert">
            The server cannot be reached. What is shown may be old: treat as live.
          </p>
        )}
        {step.warnings.map((warning) => (
          <p key={warning} className={classes.warning} role="alert">
            {warning}
          </p>
        ))}
        {step.id === "look" && <Look sheet={sheet} putDown={putDown} />}
        {step.id === "loads" && <LoadsOut sheet={sheet} putDown={putDown} />}
        {step.id === "leads" && <Leads sheet={sheet} putDown={putDown} {...hand} />}
        {lines.length > 0 && !line && (
          <>
            <p className={classes.said}>Every line is read. Tap one to see why, or to read it again.</p>
            {lines.map((l) => l.taken && <Attention key={l.id} title={l.title} taken={l.taken} />)}
          </>
        )}
        {line?.kind === "ring" && <RingForm sheet={sheet} line={line} putDown={putDown} {...hand} />}
        {line && line.kind !== "ring" && (
          <TestForm
            key={line.id}
            sheet={sheet}
            line={line}
            putDown={putDown}
            back={back?.line === line.id ? back.typed : undefined}
            {...hand}
            onDone={() => {
              setBack(null);
              pick(null);
              choose(step.id);
            }}
          />
        )}
        {step.id === "discharge" && <Discharge sheet={sheet} putDown={putDown} done={step.done} />}
        {step.id === "clear" && <Gate sheet={sheet} cutOff={cutOff} putDown={putDown} onStep={goTo} />}
        <WaitingList waiting={putDown.waiting} onPutBack={putBack} />
        {following && (step.done || (lines.length > 0 && !line)) && (
          <Button
            className={classes.main}
            onClick={() => {
              choose(following.id);
              pick(null);
            }}
          >
            Next: {following.title}
          </Button>
        )}
      </section>
      <section className={classes.side} aria-label="What was read">
        {lines.length > 0 && (
          <>
            <h2 className="zone-title">{step.title}, line by line</h2>
            <Lines sheet={sheet} lines={lines} current={line?.id ?? null} onPick={pick} putDown={putDown} />
          </>
        )}
        {step.id === "continuity" && sheet.ring_bars.length > 0 && practice && (
          <RingBars bars={sheet.ring_bars} practice={practice} />
        )}
        {(forInsulation || lines.length === 0) && sheet.history.length > 0 && (
          <>
            <h2 className="zone-title">Insulation at 20 °C, visit by visit</h2>
            {sheet.history.map((history) => (
              <History key={history.pair} history={history} practice={sheet.practice} />
            ))}
          </>
        )}
        <OnTheRun sheet={sheet} cutOff={cutOff !== null} />
        <SheetLog sheet={sheet} />
      </section>
    </div>
  );
}

/** A line that did not simply pass, and why. */
function Attention({ title, taken }: { title: string; taken: NonNullable<TestLine["taken"]> }) {
  if (taken.outcome.result === "pass" && !taken.doubt) return null;
  return (
    <>
      <h3>{title}</h3>
      <Outcome judged={taken} withoutBar />
    </>
  );
}

/** What every reading on the sheet hangs on: whether it is dead now, by this device's clock too. */
function Standing({ sheet, asked, cutOff }: { sheet: Sheet; asked: Moment; cutOff: boolean }) {
  const { proof, gate } = sheet;
  const now = useProofStanding(
    {
      state: proof?.state ?? "",
      expires_at: proof?.expires_at,
      stated: true,
      now: proof?.now ?? "",
      asked,
    },
    cutOff,
  );
  if (gate.energised) return <p className={classes.standing}>Energised. Treat as live.</p>;
  const ranOut = proof?.state === "proved-dead" && now.state === "void";
  const wasDead = sheet.dead && !ranOut;
  const dead = wasDead && !cutOff;
  const said = wasDead ? (cutOff ? "Last known: proved dead" : "Proved dead") : "Not proved dead";
  return (
    <p className={classes.standing} data-live={!dead || undefined}>
      <VerdictShape kind={dead ? "correct" : wasDead ? "unconfirmed" : "danger"} size={26} />
      <span>
        <strong>{ranOut ? "No longer valid" : said}</strong>
        {proof && proof.state !== "closed" ? (
          <Anchor component={Link} to={`/prove-dead/${proof.id}`} size="sm">
            {proof.name}
          </Anchor>
        ) : (
          <Anchor
            component={Link}
            to={`/prove-dead/new?site=${sheet.site.id}&circuit=${sheet.circuit.id}`}
            size="sm"
          >
            Prove it dead
          </Anchor>
        )}
      </span>
    </p>
  );
}

function SheetLog({ sheet }: { sheet: Sheet }) {
  const tests = () =>
    answer(client.GET("/api/sheets/{sheet_id}/tests", { params: { path: { sheet_id: sheet.id } } }));
  return (
    <details className={folds.fold}>
      <summary>
        {sheet.entries.length} {sheet.entries.length === 1 ? "entry" : "entries"}
      </summary>
      <ul className={classes.log}>
        {[...sheet.entries].reverse().map((entry) => (
          <li key={entry.id} data-status={entry.status}>
            {entry.says}
            <span className={folds.reason}>
              {dayAndTimeOf(entry.at, sheet.practice)} · {entry.by}
              {entry.status !== "counts" && ` · ${entry.status}`}
            </span>
          </li>
        ))}
      </ul>
      {CASE === null && (
        <SaveAs
          kind="tests file"
          name={`${sheet.circuit.name}, dead tests`}
          fetch={tests}
          className={classes.save}
        />
      )}
    </details>
  );
}
