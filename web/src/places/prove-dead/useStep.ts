import { useRef } from "react";
import type { Proof } from "../../api/client";
import type { Ends } from "../../geometry/pairs";

export type At = { step: string; pair: Ends | null; mode: string | null; source: string | null };

/**
 * The step that is set up. It follows the proof, which another person may move on meanwhile, but never while
 * something is typed: a number must not land on a pair it was not read on.
 */
export function useStep(proof: Proof, picked: Ends | null, renewing: boolean, typing: boolean): At {
  const { next } = proof.state;
  const wanted = next.from && next.to ? { from: next.from, to: next.to } : null;
  const now: At = {
    step: picked ? "test" : renewing ? "prove" : next.step,
    pair: picked ?? wanted,
    mode: next.mode,
    source: next.source,
  };
  const kept = useRef(now);
  if (!typing) kept.current = now;
  return kept.current;
}
