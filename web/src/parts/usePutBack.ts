import { useEffect, useRef, useState } from "react";
import type { Waiting } from "../api/outbox/waiting";

/**
 * A reading the server refuses goes back where it was typed, with why, if nothing else is typed there meanwhile;
 * else it stays on the list until a person says what next. `putBack` answers with what is typed then.
 */
export function usePutBack(list: Waiting[], typed: string, putBack: (one: Waiting) => string) {
  const [wrong, setWrong] = useState({ typed: "", text: "" });
  const seen = useRef(new Set<string>());
  const refused = list.find((one) => one.problem !== "" && !seen.current.has(one.id));
  useEffect(() => {
    if (!refused) return;
    seen.current.add(refused.id);
    if (typed === "") setWrong({ typed: putBack(refused), text: refused.problem });
  });
  const clear = () => setWrong({ typed: "", text: "" });
  return [wrong.typed === typed ? wrong.text : "", clear] as const;
}
