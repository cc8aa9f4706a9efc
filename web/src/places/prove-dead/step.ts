/** What every form of a step is given. */

import type { EventEntry, Practice, Proof, ProofTester, Refusal } from "../../api/client";
import type { Hand } from "./hand";
import type { At } from "./useStep";

/** Something happened; `tester` where it is not the one in the hand. */
export type Happens = (entry: EventEntry, tester?: string | null) => void;

export type StepProps = {
  proof: Proof;
  practice: Practice;
  at: At;
  hand: Hand;
  tester: ProofTester | undefined;
  change: (change: Partial<Hand>) => void;
  busy: boolean;
  error: Refusal | null;
  onHappened: Happens;
  onRenew: () => void;
};
