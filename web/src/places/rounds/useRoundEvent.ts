import client, { answer, type RoundEventIn } from "../../api/client";
import { useRoundWrite } from "../../api/queries";
import { useSameId } from "../../parts/useSameId";

type RoundEvent = { point: string; kind: RoundEventIn["kind"]; reason?: string; tripped?: boolean };

/** Keeps what happened on a round. */
export function useRoundEvent(roundId: string) {
  const { idFor, written } = useSameId();
  return useRoundWrite(async ({ point, kind, reason = "", tripped }: RoundEvent) => {
    const after = await answer(
      client.PUT("/api/rounds/{round_id}/events/{event_id}", {
        params: { path: { round_id: roundId, event_id: idFor([point, kind, reason, tripped]) } },
        body: { point, kind, reason, tripped: tripped ?? null },
      }),
    );
    written();
    return after;
  });
}
