import { useRef } from "react";
import client, { answer } from "../../api/client";
import { useRoundWrite } from "../../api/queries";

type RoundEvent = { point: string; kind: string; reason?: string; tripped?: boolean };

/** Keeps what happened on a round. The same content sent again after a failure is the same event. */
export function useRoundEvent(roundId: string) {
  const attempt = useRef({ content: "", id: "" });
  return useRoundWrite(async ({ point, kind, reason = "", tripped }: RoundEvent) => {
    const content = JSON.stringify([point, kind, reason, tripped]);
    if (attempt.current.content !== content) attempt.current = { content, id: crypto.randomUUID() };
    const after = await answer(
      client.PUT("/api/rounds/{round_id}/events/{event_id}", {
        params: { path: { round_id: roundId, event_id: attempt.current.id } },
        body: { point, kind, reason, tripped: tripped ?? null },
      }),
    );
    attempt.current = { content: "", id: "" };
    return after;
  });
}
