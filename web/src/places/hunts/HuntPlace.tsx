import { useParams } from "react-router";
import type { Hunt } from "../../api/client";
import { useCutOff } from "../../api/freshness";
import { useKeep } from "../../api/outbox/useOutbox";
import type { HuntBody, Waiting } from "../../api/outbox/waiting";
import { LOOK_AGAIN_MS, useHunt } from "../../api/queries";
import { CASE } from "../../api/sandbox";
import { Failure } from "../../parts/Failure";
import { LastKnown } from "../../parts/LastKnown";
import { Page } from "../../parts/Page";
import { WaitingList } from "../../parts/WaitingList";
import { CasePanel } from "../practice/CasePanel";
import { BoardRound } from "./board/BoardRound";
import { BoardTable } from "./board/BoardTable";
import { ChainDown } from "./chain/ChainDown";
import { ChainNext } from "./chain/ChainNext";
import { Freely } from "./Freely";
import { GuidePath } from "./guide/GuidePath";
import { GuideStep } from "./guide/GuideStep";
import classes from "./Hunts.module.css";
import { Over } from "./Over";
import { Marks } from "./run/Marks";
import { RunDown } from "./run/RunDown";
import { RunNext } from "./run/RunNext";
import { TakeBack } from "./TakeBack";

export type KeepSeen = (body: HuntBody, said: string) => string;
/** `seen`: what was seen, as a circuit file has it, and in words. `told`: what is not at the server yet. */
export type AtHunt = {
  hunt: Hunt;
  seen: (entry: object, said: string, tester?: string) => void;
  /** Keeps a picture, and gives its id. */
  picture: (image: string, said: string) => string;
  told: Waiting[];
};

export function HuntPlace() {
  const { huntId = "" } = useParams();
  const hunt = useHunt(huntId);
  const cutOff = useCutOff(hunt, LOOK_AGAIN_MS);
  if (hunt.isError && !hunt.data) return <Failure error={hunt.error} retry={() => hunt.refetch()} />;
  if (!hunt.data) return <div aria-busy="true" />;
  return <Hunting key={huntId} hunt={hunt.data} cutOff={cutOff} />;
}

/** What to do next, and beside it what it is hunted along. */
function Hunting({ hunt, cutOff }: { hunt: Hunt; cutOff: number | null }) {
  const { keep, waiting } = useKeep("hunt-event", hunt.id, hunt.title);
  const { keep: keepPicture } = useKeep("hunt-photo", hunt.id, hunt.title);
  const { last } = hunt;
  const told = waiting.taken.filter((one) => one.kind === "hunt-event");
  const onItsWay = told.at(-1);
  const manyTaps = hunt.map || hunt.guide?.next?.each === "point";
  const at: AtHunt = {
    hunt,
    seen: (entry, said, tester) =>
      keep({ kind: "seen", entry: entry as HuntBody["entry"], tester: tester ?? null }, said),
    picture: (image, said) => keepPicture({ image }, said),
    told,
  };
  return (
    <Page
      title={hunt.title}
      under={`${hunt.site.name}. ${hunt.happened}${hunt.run || hunt.chain ? `; hunting ${hunt.hunted}` : ""}.`}
      back={CASE === null ? ["/hunts", "Hunt"] : undefined}
    >
      {cutOff !== null && (
        <p role="alert" className={classes.wrong}>
          <LastKnown since={cutOff} /> What is recorded here is kept, and sent when the line is back.
        </p>
      )}
      <WhatWasTold told={hunt.told} />
      <div className={classes.hunt}>
        <section className={classes.next} aria-label="What comes next">
          {CASE !== null ? (
            <Freely {...at} />
          ) : onItsWay && !manyTaps ? (
            <OnItsWay hunt={hunt} said={onItsWay.said} />
          ) : (
            <Next at={at} keep={keep} />
          )}
          <WaitingList waiting={waiting} />
          {last && !onItsWay && (CASE !== null || hunt.state !== "contradictory") && (
            <TakeBack told={last} keep={keep} />
          )}
          <Seen hunt={hunt} />
          {CASE === null && hunt.run && hunt.state !== "closed" && (
            <Marks hunt={hunt} run={hunt.run} keep={keep} />
          )}
        </section>
        <section aria-label={hunt.run ? "The run" : "So far"}>
          {hunt.run && <RunDown hunt={hunt} run={hunt.run} />}
          {hunt.chain && <ChainDown chain={hunt.chain} />}
          {hunt.map && <BoardTable map={hunt.map} told={told} />}
          {hunt.guide && <GuidePath hunt={hunt} guide={hunt.guide} />}
          {CASE !== null && <CasePanel />}
        </section>
      </div>
    </Page>
  );
}

/** One clear thing to do, by what is hunted and how far it is. */
function Next({ at, keep }: { at: AtHunt; keep: KeepSeen }) {
  const { hunt } = at;
  if (hunt.state !== "hunting") return <Over hunt={hunt} keep={keep} />;
  const { run, chain, map, guide } = hunt;
  if (run?.answer.next) return <RunNext key={hunt.seen.length} {...at} run={run} next={run.answer.next} />;
  if (chain?.answer.next) return <ChainNext {...at} chain={chain} next={chain.answer.next} />;
  if (map) return <BoardRound {...at} map={map} />;
  if (guide?.next) return <GuideStep key={keyOf(guide)} {...at} step={guide.next} />;
  return <Over hunt={hunt} keep={keep} />;
}

/** A step is begun anew after each answer; while one goes round the points it stays, so that no tap is lost to an answer. */
const keyOf = ({ next, path }: NonNullable<Hunt["guide"]>) =>
  next?.each === "point" ? next.step : `${path.length}`;

/** What was just told is not at the server yet: what follows from it is known already, and nothing is told twice. */
function OnItsWay({ hunt, said }: { hunt: Hunt; said: string }) {
  const tapped = hunt.guide?.next?.outcomes.find((one) => said.endsWith(`: ${one.title}`));
  const then = tapped?.then ?? hunt.run?.ahead.find((one) => said.endsWith(`: ${one.when}`))?.then;
  return (
    <div aria-live="polite">
      <h2 className={classes.where}>Recorded</h2>
      <p>{said}.</p>
      {then && (
        <p>
          Then: <strong>{then}</strong>.
        </p>
      )}
    </div>
  );
}

const TOLD: Record<string, string> = {
  also_dead: "Also dead",
  done_last: "Done last",
  note: "Note",
};

/** The answers of the intake beside what happened. */
function WhatWasTold({ told }: { told: Hunt["told"] }) {
  return Object.entries(told).map(([key, text]) => (
    <p key={key}>
      <span className="quiet">{TOLD[key] ?? key}: </span>
      {text}
    </p>
  ));
}

function Seen({ hunt }: { hunt: Hunt }) {
  if (hunt.seen.length === 0 || hunt.guide) return null;
  return (
    <details className={classes.fold}>
      <summary>{hunt.seen.length === 1 ? "1 thing seen" : `${hunt.seen.length} things seen`}</summary>
      <ol>
        {hunt.seen.map((one) => (
          <li key={one.event} data-contradicts={one.contradicts || undefined}>
            {one.contradicts && "≠ "}
            {one.text}
            <span className="quiet"> {one.by}</span>
          </li>
        ))}
      </ol>
    </details>
  );
}
