import { lastKnown } from "../api/freshness";
import { useByTheClock } from "../api/useByTheClock";

/** How old what is shown is, kept up to the clock. `since`: when it was last heard of, in ms since 1970. */
export function LastKnown({ since }: { since: number }) {
  return useByTheClock(() => lastKnown(since));
}
