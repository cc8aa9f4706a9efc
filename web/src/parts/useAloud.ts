import { useEffect, useRef } from "react";
import { useSetting } from "./useSetting";

/** Reads a text aloud whenever it is another, by the browser's own voice, where that is asked for: eyes stay on the probes. */
export function useAloud(text: string, language: string | undefined) {
  const [aloud] = useSetting("aloud");
  const said = useRef("");
  useEffect(() => {
    if (!aloud || text === said.current || !("speechSynthesis" in window)) return;
    said.current = text;
    const spoken = new SpeechSynthesisUtterance(text);
    if (language) spoken.lang = language;
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(spoken);
  }, [aloud, text, language]);
}
