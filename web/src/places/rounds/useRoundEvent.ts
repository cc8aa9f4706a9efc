import client, { answer, type RoundEventIn } from "../../api/client";
import { ROUND } from "../../api/records";
import { useRecord } from "../../api/useRecord";

type RoundEvent = { point: string; kind: RoundEventIn["kind"]; reason?: string; tripped?: boolean };

/** Keeps what happened on a round. */
export function useRoundEvent(roundId: string) {
  return useRecord(ROUND, ({ point, kind, reason = "", tripped }: RoundEvent, { id }) =>
    answer(
      client.PUT("/api/rounds/{round_id}/events/{event_id}", {
        params: { path: { round_id: roundId, event_id: id } },
        body: { point, kind, reason, tripped: tripped ?? null },
      }),
    ),
  );
}
