/** What may not be to be had for a next test, as a person says it. */

import type { NextTest } from "../api/client";

export type Obstacle = NextTest["needs"][number];

export const CANNOT: Record<Obstacle, { say: string; without: string }> = {
  reference: { say: "I have no reference", without: "no reference" },
  load: { say: "I have no load", without: "no load" },
  open: { say: "I cannot open it", without: "nothing opened" },
  unplug: { say: "I cannot unplug everything", without: "not everything unplugged" },
  "switch-off": { say: "I cannot switch it off", without: "nothing switched off" },
};
