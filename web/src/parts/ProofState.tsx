/** How a proof of isolation stands: shape first, then word, then colour. */

import { VerdictShape } from "./VerdictShape";

const SHAPES: Record<string, string> = {
  "proved-dead": "correct",
  "last-known": "unconfirmed",
  energised: "danger",
  void: "void",
  proving: "unconfirmed",
  isolated: "untested",
  closed: "closed",
  history: "closed",
};

export const ProofShape = ({ state, size = 26 }: { state: string; size?: number }) => (
  <VerdictShape kind={SHAPES[state] ?? "untested"} size={size} />
);
