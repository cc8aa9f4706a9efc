import { useTick } from "../api/useByTheClock";
import { type ProofKnown, type StandingNow, standingNow } from "./proofStanding";

const TICK_MS = 250;

/** The same, kept up to the clock. */
export function useProofStanding(proof: ProofKnown, cutOff: boolean): StandingNow {
  useTick(TICK_MS);
  return standingNow(proof, cutOff);
}
