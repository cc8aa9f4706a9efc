import { useEffect, useState } from "react";

const SETTLED_AFTER_MS = 200;

/** What is typed, once nobody typed on for a moment. */
export function useSettled(typed: string): string {
  const [settled, settle] = useState(typed);
  useEffect(() => {
    const timer = setTimeout(() => settle(typed), SETTLED_AFTER_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  return settled;
}
