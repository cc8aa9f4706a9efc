import { useRef } from "react";
import type { Proof } from "../../api/client";
import type { Ends } from "../../geometry/pairs";

export type At = { step: string; pair: Ends | null; mode: string | null; source: string | null };

type Next = Proof["state"]["next"];
/** The pair picked by hand, or none: another object each time a hand said so. */
export type Picked = { pair: Ends | null };

/**
 * The step that is set up; `wait` where only the server knows what comes next. It follows the proof, which another person may move on meanwhile, but never while
 * something is typed, but where a hand picks a pair or a refused number comes back to its own: a number must not land on
 * a pair it was not read on.
 */
export function useStep(next: Next | undefined, picked: Picked, renewing: boolean, typing: boolean): At {
  const wanted = next?.from && next.to ? { from: next.from, to: next.to } : null;
  const now: At = {
    step: picked.pair ? "test" : renewing ? "prove" : (next?.step ?? "wait"),
    pair: picked.pair ?? wanted,
    mode: next?.mode ?? null,
    source: next?.source ?? null,
  };
  const kept = useRef(now);
  const before = useRef(picked);
  if (!typing || before.current !== picked) kept.current = now;
  before.current = picked;
  return kept.current;
}
