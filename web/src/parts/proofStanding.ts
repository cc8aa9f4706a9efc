/** How a proof of isolation stands on this device, now: by its own clock and by how old what is known of it is. */

import { type Clocked, type Moment, msUntil, present } from "../api/clock";

/** Of a proof what its shape, word and clock need. `stated`: whether somebody put a name to it. */
export type ProofKnown = Clocked & { state: string; expires_at?: string | null; stated: boolean };

/** `state`: a state of the server's, or last-known. `ms`: what is left of a running proof, null where none runs. */
export type StandingNow = { state: string; word: string; ms: number | null };

export const PROOF_WORDS: Record<string, string> = {
  "proved-dead": "Proved dead",
  energised: "Live",
  void: "No longer valid",
  proving: "Not proved yet",
  isolated: "Isolated, not proved",
  closed: "Closed",
  history: "History",
  unshown: "Cannot be shown",
};

/** At zero it is void here, whatever the line does; cut off it is no more than last known, for another may have ended it. */
export function standingNow(proof: ProofKnown, cutOff: boolean, now: Moment = present()): StandingNow {
  const word = PROOF_WORDS[proof.state] ?? proof.state;
  if (proof.state !== "proved-dead")
    return { state: proof.state, word: cutOff ? `Last known: ${word.toLowerCase()}` : word, ms: null };
  const ms = proof.expires_at ? msUntil(proof.expires_at, proof, now) : 0;
  if (ms <= 0) return { state: "void", word: "No longer valid", ms: null };
  const known = proof.stated ? "proved dead" : "all tests done, not confirmed";
  if (cutOff) return { state: "last-known", word: `Last known: ${known}`, ms };
  if (!proof.stated) return { state: "proving", word: "All tests done, not confirmed", ms };
  return { state: "proved-dead", word, ms };
}

/** "12:05", down to 0:00. */
export function minutesAndSeconds(ms: number): string {
  const seconds = Math.max(0, Math.ceil(ms / 1000));
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}
