import { useRef } from "react";
import { newId } from "../api/ids";

/** An id for what is about to be written down: the same while its content is, so that a retry is the same record. */
export function useSameId() {
  const attempt = useRef({ content: "", id: "" });
  const idFor = (content: unknown): string => {
    const written = JSON.stringify(content);
    if (attempt.current.content !== written) attempt.current = { content: written, id: newId() };
    return attempt.current.id;
  };
  const written = () => {
    attempt.current = { content: "", id: "" };
  };
  return { idFor, written };
}
