/** When a running proof of isolation has to be told of: before its end, from when the server says, and at it. Once each. */

import type { ProofLine } from "../api/client";
import { type Moment, msUntil, present } from "../api/clock";

export type Running = Pick<ProofLine, "id" | "name" | "state" | "expires_at" | "warn_at" | "now">;
/** `end`: what it runs to; `ms`: what is left of it, nothing where it is over. */
export type Alarm = { proof: string; name: string; end: string; ms: number; key: string };

/** What is to be told now of what was `asked` for then; `told` remembers it, each renewal being another end. */
export function alarmsDue(
  proofs: Running[],
  asked: Moment,
  told: Set<string>,
  now: Moment = present(),
): Alarm[] {
  return proofs.flatMap((proof) => {
    const { id, name, state, expires_at, warn_at } = proof;
    if (state !== "proved-dead" || !expires_at || !warn_at) return [];
    const until = (moment: string) => msUntil(moment, { now: proof.now, asked }, now);
    const ms = Math.max(0, until(expires_at));
    const key = `${id} ${expires_at} ${ms > 0 ? "soon" : "over"}`;
    if (until(warn_at) > 0 || told.has(key)) return [];
    told.add(key);
    return [{ proof: id, name, end: expires_at, ms, key }];
  });
}
