/** When a running proof of isolation has to be told of: some minutes before its end, and at it. Once each. */

import { type Moment, msUntil, present } from "../api/clock";

/** `now`: by the server, in the answer. */
export type Running = { id: string; name: string; state: string; expires_at?: string | null; now: string };
export type Alarm = { id: string; name: string; over: boolean; key: string };

const SOON_MS = 5 * 60_000;

/** What is to be told now of what was `asked` for then; `told` remembers it, each renewal being another end. */
export function alarmsDue(
  proofs: Running[],
  asked: Moment,
  told: Set<string>,
  now: Moment = present(),
): Alarm[] {
  return proofs.flatMap((proof) => {
    if (proof.state !== "proved-dead" || !proof.expires_at) return [];
    const ms = msUntil(proof.expires_at, { now: proof.now, asked }, now);
    const over = ms <= 0;
    const key = `${proof.id} ${proof.expires_at} ${over ? "over" : "soon"}`;
    if (ms > SOON_MS || told.has(key)) return [];
    told.add(key);
    return [{ id: proof.id, name: proof.name, over, key }];
  });
}
