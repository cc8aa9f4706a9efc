/** What every form of a step is given. */

import type { Practice, Proof, ProofTester, Refusal } from "../../api/client";
import type { Ends } from "../../parts/PairFigure";
import type { EventEntry, Hand } from "./hand";

/** Something happened; `tester` where it is not the one in the hand. */
export type Happens = (entry: EventEntry, tester?: string | null) => void;

export type StepProps = {
  proof: Proof;
  practice: Practice;
  step: string;
  pair: Ends | null;
  hand: Hand;
  tester: ProofTester | undefined;
  change: (change: Partial<Hand>) => void;
  busy: boolean;
  error: Refusal | null;
  onHappened: Happens;
  onRenew: () => void;
};
