/**
 * The tester this person last named for a use, on this device: none is taken that nobody chose. Null where nobody did,
 * empty for the typed meter, one that is not on record.
 */

import { useCallback, useState } from "react";
import { keptAs } from "./sandbox";

const KEY = keptAs(".tester ");

type Use = "live" | "ohms" | "insulation";

export const forgetTesters = (): void => {
  for (const use of ["live", "ohms", "insulation"] as const) localStorage.removeItem(KEY + use);
};

/** `named`: whether it is said what is in the hand; where no tester is on record there is but the typed meter. */
export function useNamedTester<T extends { id: string }>(use: Use, testers: T[]) {
  const [said, say] = useState(() => localStorage.getItem(KEY + use));
  const tester = testers.find((one) => one.id === said);
  const named = said === "" || tester !== undefined || testers.length === 0;
  const name = useCallback(
    (id: string | null) => {
      localStorage.setItem(KEY + use, id ?? "");
      say(id ?? "");
    },
    [use],
  );
  return { tester, named, name };
}
