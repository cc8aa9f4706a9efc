import { useEffect, useState } from "react";
import { type ProofKnown, type StandingNow, standingNow } from "./proofStanding";

const TICK_MS = 250;

/** The same, kept up to the clock. */
export function useProofStanding(proof: ProofKnown, cutOff: boolean): StandingNow {
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  return standingNow(proof, cutOff);
}
