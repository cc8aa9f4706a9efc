import { useCallback, useState } from "react";
import client, { answer, type EventEntry, type Practice, type Proof } from "../../api/client";
import { useKeep, useWhenSent } from "../../api/outbox/useOutbox";
import type { EventBody } from "../../api/outbox/waiting";
import { PROOF } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { eventWords } from "./words";

const OF_A_TESTER = ["proved", "prove-failed", "tested", "screened"];
const NOTHING_HELD = { tester: null, leads: null, adapters: [] };

/** Records what happened, with what was in the hand; what was `typed` can be put back if the server refuses it. */
export function useRecordEvent(proof: Proof, practice: Practice) {
  const { keep, waiting } = useKeep("proof-event", proof.id, proof.name);
  const [clock, setClock] = useState("");
  useWhenSent(
    useCallback(
      (one, answer) => {
        if (one.of === proof.id && "clock" in answer) setClock(String(answer.clock));
      },
      [proof.id],
    ),
  );
  const record = ({ entry, ...hand }: EventBody, typed?: unknown) => {
    const held = OF_A_TESTER.includes(entry.type)
      ? { ...hand, tester: hand.tester?.split("/")[0] ?? null }
      : NOTHING_HELD;
    keep({ entry, ...held }, wordsOf(entry, proof, practice), typed);
  };
  return { record, waiting, clock };
}

const wordsOf = (entry: EventEntry, proof: Proof, practice: Practice) =>
  eventWords(entry, practice, new Map(proof.state.sources.map((s) => [s.id, s.label])));

/** Confirmed dead is said of what the server knows, so it is not kept for later. `stand`: a second person's word before it. */
export function useConfirm(proof: Proof, stand: (id: string) => Promise<void>) {
  return useRecord(PROOF, async (_: undefined, { id, at }) => {
    await stand(id);
    return answer(
      client.PUT("/api/proofs/{proof_id}/events/{event_id}", {
        params: { path: { proof_id: proof.id, event_id: id } },
        body: { entry: { type: "stated" }, ...NOTHING_HELD, at, sent_at: new Date().toISOString() },
      }),
    );
  });
}
