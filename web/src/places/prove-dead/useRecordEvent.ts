import { useRef } from "react";
import client, { answer, asTyped, type EventEntry, type Happening, type Proof } from "../../api/client";
import { newId } from "../../api/ids";
import { useProofWrite } from "../../api/queries";
import type { Hand } from "./hand";

const OF_A_TESTER = ["proved", "prove-failed", "tested", "screened"];

type Attempt = { content: string; id: string; at: string };

/** Records events. The same content sent again after a failure is the same event, at the time it was first tried. */
export function useRecordEvent(proof: Proof, hand: Hand) {
  const attempt = useRef<Attempt | null>(null);
  const write = useProofWrite(async ({ entry, tester }: { entry: EventEntry; tester: string | null }) => {
    const held = OF_A_TESTER.includes(entry.type)
      ? {
          tester: tester?.split("/")[0] ?? null,
          leads: hand.leads,
          adapters: hand.adapters,
        }
      : { tester: null, leads: null, adapters: [] };
    const content = JSON.stringify([entry, held]);
    if (attempt.current?.content !== content)
      attempt.current = { content, id: newId(), at: new Date().toISOString() };
    const { id, at } = attempt.current;
    const after = await answer(
      client.PUT("/api/proofs/{proof_id}/events/{event_id}", {
        params: { path: { proof_id: proof.id, event_id: id } },
        body: { entry: asTyped<Happening>(entry), ...held, at, sent_at: new Date().toISOString() },
      }),
    );
    attempt.current = null;
    return after;
  });
  return write;
}
