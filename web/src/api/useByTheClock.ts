import { useEffect, useState, useSyncExternalStore } from "react";

const A_SECOND_MS = 1000;

function everySecond(told: () => void) {
  const timer = setInterval(told, A_SECOND_MS);
  return () => clearInterval(timer);
}

/** What is true by the clock, looked at every second and drawn anew only when it changes. */
export const useByTheClock = <T extends string | number | boolean | null>(read: () => T): T =>
  useSyncExternalStore(everySecond, read);

/** Draws anew every so many ms, for what changes with each of them. */
export function useTick(everyMs: number) {
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
}
