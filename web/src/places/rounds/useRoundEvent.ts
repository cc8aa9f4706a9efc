import type { Round, Stop } from "../../api/client";
import { useKeep } from "../../api/outbox/useOutbox";
import type { RoundBody } from "../../api/outbox/waiting";
import { type Pressed, pressWith } from "./press";

/** Keeps what happened on a round. `press`: what the last press waits for, with what is not at the server yet. */
export function useRoundEvent(round: Round) {
  const { keep, waiting } = useKeep("round-event", round.id, round.title);
  const bodies = waiting.taken.map((one) => one.body as RoundBody);
  const press: Pressed | null = pressWith(round.press, bodies, round.stops);
  const skipped = (stop: Stop) => bodies.some(({ kind, point }) => kind === "skipped" && point === stop.id);
  const happened = (
    point: string,
    kind: RoundBody["kind"],
    said: string,
    { reason = "", tripped = null }: { reason?: string; tripped?: boolean | null } = {},
  ) => keep({ point, kind, reason, tripped }, said);
  return { happened, press, skipped, waiting };
}

export type RoundEvents = ReturnType<typeof useRoundEvent>;
