import client, { answer, asTyped, type EventEntry, type Happening, type Proof } from "../../api/client";
import { PROOF } from "../../api/records";
import { useRecord } from "../../api/useRecord";

const OF_A_TESTER = ["proved", "prove-failed", "tested", "screened"];

/** What happened, and what was in the hand. */
export type Happened = {
  entry: EventEntry;
  tester: string | null;
  leads: string | null;
  adapters: string[];
};

/** Records events, each at the time it was first tried. */
export function useRecordEvent(proof: Proof) {
  return useRecord(PROOF, ({ entry, ...hand }: Happened, { id, at }) => {
    const held = OF_A_TESTER.includes(entry.type)
      ? { ...hand, tester: hand.tester?.split("/")[0] ?? null }
      : { tester: null, leads: null, adapters: [] };
    return answer(
      client.PUT("/api/proofs/{proof_id}/events/{event_id}", {
        params: { path: { proof_id: proof.id, event_id: id } },
        body: { entry: asTyped<Happening>(entry), ...held, at, sent_at: new Date().toISOString() },
      }),
    );
  });
}
