import { useEffect, useState } from "react";

type Asked = "find" | "keys" | null;

const KEYS: Record<string, Asked> = { "/": "find", "?": "keys" };
const TYPES_TEXT = "input:not([inputmode=decimal], [type=radio], [type=checkbox]), textarea, select";

/** Slash finds, a question mark lists the keys, wherever no text is typed; a place with keys of its own lists its own. */
export function useEverywhereKeys(on: boolean) {
  const [asked, ask] = useState<Asked>(null);
  useEffect(() => {
    if (!on) return;
    const onKey = (event: KeyboardEvent) => {
      const key = KEYS[event.key];
      if (!key || event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.target instanceof Element && event.target.matches(TYPES_TEXT)) return;
      if (document.querySelector("[role=dialog]")) return;
      event.preventDefault();
      ask(key);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [on]);
  return [asked, ask] as const;
}
