import { useEffect, useState } from "react";

/** What is sent sooner needs no word, and moves nothing on the page. */
const UNDER_WAY_MS = 2_000;

/** Whether something has been so for a while. */
export function useLate(so: boolean): boolean {
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(so), so ? UNDER_WAY_MS : 0);
    return () => clearTimeout(timer);
  }, [so]);
  return late && so;
}
