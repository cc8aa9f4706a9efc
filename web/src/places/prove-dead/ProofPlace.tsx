import { Button, Text } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import type { Practice, Proof } from "../../api/client";
import type { Moment } from "../../api/clock";
import { draftOf, keepDraft } from "../../api/drafts";
import { useCutOff } from "../../api/freshness";
import { keys } from "../../api/keys";
import type { Waiting } from "../../api/outbox/waiting";
import { TWO_ON_ONE_MS, usePractice, useProof } from "../../api/queries";
import { type Ends, samePair } from "../../geometry/pairs";
import { Failure } from "../../parts/Failure";
import { PairFigure } from "../../parts/PairFigure";
import { PROOF_WORDS } from "../../parts/proofStanding";
import { useProofStanding } from "../../parts/useProofStanding";
import { usePutBack } from "../../parts/usePutBack";
import { useWakeLock } from "../../parts/useWakeLock";
import { WaitingList } from "../../parts/WaitingList";
import { WorkHeader } from "../../parts/WorkHeader";
import { Alarm } from "./Alarm";
import { mayEnd, stepsLeft, unsentOf } from "./ahead";
import { EventLog } from "./EventLog";
import { Happened } from "./Happened";
import { type Hand, testerIn, useHand } from "./hand";
import { NextStep } from "./NextStep";
import panel from "./NextStep.module.css";
import classes from "./ProofPlace.module.css";
import shared from "./Prove.module.css";
import { Standing } from "./Standing";
import { Steps } from "./Steps";
import type { Happens } from "./step";
import { useRecordEvent } from "./useRecordEvent";
import { type Picked, useStep } from "./useStep";

/** What was typed, with what and between what, to be put back where the server refuses it. */
type PutBack = { hand: Hand; pair: Ends | null };
/** What is half typed, and at which step it belongs. */
type Begun = PutBack & { step: string };

/** A number comes back only to the step it was read at. */
const fitting = (begun: Begun | null, { step, from, to }: Proof["state"]["next"]): Begun | undefined =>
  begun?.step === step && (begun.pair?.from ?? null) === from && (begun.pair?.to ?? null) === to
    ? begun
    : undefined;

/** A second tap in the same place, or a key held down, is no answer to the step that took the first one's place. */
const onceATap = {
  onClickCapture: (event: React.MouseEvent) => event.detail > 1 && halt(event),
  onKeyDownCapture: (event: React.KeyboardEvent) => event.repeat && event.key === "Enter" && halt(event),
};
const halt = (event: React.SyntheticEvent) => {
  event.preventDefault();
  event.stopPropagation();
};

const PROOFS = ["prove", "prove-again"];
/** Steps for which the log says which tester has to go on. */
const BY_THE_SAME = [...PROOFS, "low-impedance"];

export function ProofPlace() {
  const { proofId = "" } = useParams();
  const proof = useProof(proofId);
  const practice = usePractice(proof.data?.practice);
  const cutOff = useCutOff(proof, TWO_ON_ONE_MS);
  if (proof.isError && !proof.data) return <Failure error={proof.error} retry={() => proof.refetch()} />;
  if (!proof.data || !practice) return <div className={classes.page} aria-busy="true" />;
  return <Proving key={proofId} proof={proof.data} practice={practice} cutOff={cutOff} />;
}

function Proving(props: { proof: Proof & { asked: Moment }; practice: Practice; cutOff: number | null }) {
  const { proof, practice, cutOff } = props;
  const known = {
    ...proof.state,
    stated: proof.state.stated_at !== null,
    now: proof.now,
    asked: proof.asked,
  };
  const { record, waiting, clock } = useRecordEvent(proof, practice);
  const unsent = unsentOf(proof, waiting.taken);
  const unsure = cutOff !== null || mayEnd(unsent);
  const standing = useProofStanding(known, unsure);
  useWakeLock(standing.ms !== null);
  const queries = useQueryClient();
  const place = `proof ${proof.id}`;
  const [begun] = useState(() => fitting(draftOf<Begun>(place), proof.state.next));
  const [hand, change] = useHand(proof, begun?.hand);
  const [picked, setPicked] = useState<Picked>({ pair: null });
  const pick = (pair: Ends | null) => setPicked({ pair });
  const [renewing, renew] = useState(false);
  const { state } = proof;
  const left = stepsLeft(state, unsent);
  const [next] = left;
  const at = useStep(next, picked, renewing, hand.typed !== "");
  const { step, pair } = at;
  const tester = testerIn(proof, hand);
  const old = standing.state !== state.state || proof.brought_at !== null;

  const isPutBack = useRef(begun !== undefined);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new step sets the hand up anew
  useEffect(() => {
    if (isPutBack.current) {
      isPutBack.current = false;
      return;
    }
    change({ lowImpedance: step === "low-impedance" });
    if (PROOFS.includes(step)) change({ mode: null, range: "" });
    if (next?.tester && BY_THE_SAME.includes(step)) change({ tester: next.tester });
  }, [step, pair?.from, pair?.to, at.mode]);

  const { typed } = hand;
  useEffect(
    () => keepDraft(place, typed ? ({ hand, step, pair } satisfies Begun) : null),
    [place, typed, hand, step, pair],
  );

  const putBack = (one: Waiting) => {
    waiting.outbox.drop(one.id);
    const was = one.typed as PutBack;
    isPutBack.current = true;
    pick(was.pair);
    change(was.hand);
    return was.hand.typed;
  };
  const [wrong, clearWrong] = usePutBack(
    waiting.list.filter((one) => one.typed !== undefined),
    hand.typed,
    putBack,
  );
  const happened: Happens = (entry, tester = hand.tester) => {
    clearWrong();
    const back: PutBack = { hand, pair: at.pair };
    const { leads, adapters } = hand;
    record({ entry, tester, leads, adapters }, hand.typed ? back : undefined);
    pick(null);
    renew(false);
    change({ typed: "", note: "" });
  };
  const lookAgain = useCallback(
    () => void queries.invalidateQueries({ queryKey: keys.proof(proof.id) }),
    [queries, proof.id],
  );
  const alive = state.problems.filter((p) => p.code === "voltage-present");
  const aliveEnds = alive.flatMap((p) => {
    const entry = proof.events[p.event]?.entry as Partial<Ends> | undefined;
    return entry?.from && entry.to ? [{ from: entry.from, to: entry.to }] : [];
  });

  return (
    <div className={classes.page}>
      <WorkHeader back={["/prove-dead", "Prove dead"]} under={proof.site.name} title={proof.name}>
        <Standing proof={proof} standing={standing} cutOff={cutOff} onOver={lookAgain} />
      </WorkHeader>
      <section className={classes.next} aria-label="Next step" {...onceATap}>
        {standing.state === "void" && state.state === "proved-dead" ? (
          <RanOut cutOff={cutOff !== null} onAgain={lookAgain} />
        ) : proof.brought_at ? (
          <History proof={proof} />
        ) : (
          <NextStep
            key={`${step} ${pair?.from} ${pair?.to} ${at.source}`}
            proof={proof}
            practice={practice}
            at={at}
            hand={hand}
            tester={tester}
            change={change}
            wrong={wrong}
            unsure={unsure}
            onHappened={happened}
            onRenew={() => renew(true)}
          />
        )}
        <WaitingList waiting={waiting} onPutBack={putBack} />
        {clock && (
          <Text className={shared.note} role="status">
            {clock}
          </Text>
        )}
        {!proof.brought_at && <Happened proof={proof} onHappened={happened} />}
      </section>
      <section className={classes.figure} aria-label="Pairs" data-old={old || undefined}>
        <h2 className="zone-title">
          Pairs, {state.pairs.filter((p) => p.done).length} of {state.pairs.length}
        </h2>
        <PairFigure
          practice={practice}
          terminals={proof.terminals}
          pairs={state.pairs}
          next={pair}
          alive={aliveEnds}
          onPair={(chosen) => {
            change({ typed: "" });
            pick(next?.from && next.to && samePair(chosen, { from: next.from, to: next.to }) ? null : chosen);
          }}
        />
        <p className={classes.hint}>
          {proof.brought_at
            ? "As the file tells it. Nothing is read here."
            : pair
              ? "Reference first, then the measuring point. Off in reverse. One hand, the other away from metal."
              : "Solid: it counts. Dotted: still to be read. Tap a pair to read it out of turn."}
        </p>
      </section>
      <section className={classes.steps} aria-label="In this order" data-old={old || undefined}>
        <h2 className="zone-title">In this order</h2>
        <Steps proof={proof} practice={practice} />
        <EventLog proof={proof} practice={practice} />
        <p className={classes.caution}>
          This work can kill. Your local code, permits and the maker's instructions come first. In doubt,
          treat as live.
        </p>
      </section>
      <Alarm problems={alive} />
    </div>
  );
}

/** Its time is over by this device's own clock, whether or not the server can be asked. */
function RanOut({ cutOff, onAgain }: { cutOff: boolean; onAgain: () => void }) {
  return (
    <div className={panel.panel}>
      <h2>
        No longer valid: its time is <b>over</b>
      </h2>
      <p className={shared.how}>
        Hands off. Treat as live. Prove every pair again before a hand goes in.
        {cutOff && " The server cannot be asked yet."}
      </p>
      <Button className={shared.main} onClick={onAgain}>
        Look again
      </Button>
    </div>
  );
}

/** What came from a file: told as the file tells it, and nothing to do with it. */
function History({ proof }: { proof: Proof }) {
  return (
    <div className={panel.panel}>
      <h2>
        History <b>from a file</b>
      </h2>
      <p className={shared.how}>
        By the file it was {(PROOF_WORDS[proof.state.was] ?? proof.state.was).toLowerCase()}. Names and
        testers in it are as the file gives them. It proves nothing here: begin a proof of your own.
      </p>
      <Button className={shared.main} component={Link} to="/prove-dead/new">
        Prove something dead
      </Button>
    </div>
  );
}
