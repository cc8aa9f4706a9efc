/** What every form of a step is given. */

import type { EventEntry, Practice, Proof, ProofTester } from "../../api/client";
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
  /** Why what was typed was refused, when it was put back. */
  wrong: string;
  /** How the proof stands is only last known. */
  unsure: boolean;
  onHappened: Happens;
  onRenew: () => void;
};
