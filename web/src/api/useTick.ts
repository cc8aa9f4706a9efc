import { useEffect, useState } from "react";

/** Draws anew every so many ms, for what is shown by the clock. */
export function useTick(everyMs: number) {
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
}
