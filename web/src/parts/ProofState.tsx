/** How a proof of death stands: shape first, then word, then colour. */

import { VerdictShape } from "./VerdictShape";

const SHAPES: Record<string, string> = {
  "proved-dead": "correct",
  energised: "danger",
  void: "void",
  proving: "unconfirmed",
  isolated: "untested",
  closed: "closed",
};

export const PROOF_WORDS: Record<string, string> = {
  "proved-dead": "Proved dead",
  energised: "Live",
  void: "Void",
  proving: "Not proved yet",
  isolated: "Isolated, not proved",
  closed: "Closed",
};

export const ProofShape = ({ state, size = 26 }: { state: string; size?: number }) => (
  <VerdictShape kind={SHAPES[state] ?? "untested"} size={size} />
);
