import { type RefObject, useEffect, useRef } from "react";

/** Digits go to the reading, letters place probes, Space sets up the next test, U takes back the last reading, ? lists the keys. */
export function useBenchKeys(props: {
  letters: Record<string, string>;
  contact: (terminal: string) => void;
  setUp: () => void;
  list: () => void;
  undo: () => void;
  field: RefObject<HTMLInputElement | null>;
}) {
  const latest = useRef(props);
  latest.current = props;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { letters, contact, setUp, list, undo, field } = latest.current;
      if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector('[role="dialog"]')) return;
      const at = event.target as HTMLElement;
      const digit = /^[0-9.,]$/.test(event.key);
      const elsewhere = at !== field.current && /^(INPUT|SELECT|TEXTAREA)$/.test(at.tagName);
      if (elsewhere && !(digit && isListOfWords(at))) return;
      const onControl = at !== field.current && at.closest("button, a, summary, [role=button]") !== null;
      const terminal = letters[event.key.toLowerCase()];
      if (terminal) contact(terminal);
      else if (event.key === "?") list();
      else if (event.key.toLowerCase() === "u") undo();
      else if (event.key === " " && !onControl) setUp();
      else {
        if (digit) field.current?.focus();
        return;
      }
      event.preventDefault();
    };
    // Before the keys that are the same everywhere, which leave alone what was answered here.
    window.addEventListener("keydown", onKey, { capture: true });
    return () => window.removeEventListener("keydown", onKey, { capture: true });
  }, []);
}

/** In such a list a digit finds nothing, so it is meant for the reading. */
const isListOfWords = (at: HTMLElement) =>
  at instanceof HTMLSelectElement && ![...at.options].some((option) => /^\d/.test(option.text));
