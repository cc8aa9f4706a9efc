import type { Practice } from "../api/client";
import { wordOf } from "../api/reference";
import { functionNamed } from "./functions";

/** Where the probes are: the dark one first. */
export type Probes = { reference: string | null; measuring: string | null };

/** What people call a contact: by its letter, and an earth of its own by its name. */
export const contactName = (terminal: string, practice: Practice): string =>
  terminal === "REF" ? wordOf(practice, "REF") : (practice.letters[terminal] ?? terminal);

/** The same for the ear: "hot", "hot 2", "ground". */
export const spokenContact = (terminal: string, practice: Practice): string => {
  const [, line] = /^L([123])$/.exec(terminal) ?? [];
  return line ? `${wordOf(practice, "L")} ${line}` : wordOf(practice, terminal);
};

/** What to do next with the probes, or with whatever the tester is set to. */
export function probeHint(what: string, { reference, measuring }: Probes, practice: Practice): string {
  const { probes, hint, hint_at } = functionNamed(what);
  if (probes !== "two")
    return hint_at && measuring ? hint_at.replace("{at}", contactName(measuring, practice)) : hint;
  return [whereNext({ reference, measuring }, practice), hint].filter(Boolean).join(" ");
}

function whereNext({ reference, measuring }: Probes, practice: Practice): string {
  if (!reference) return "Tap the reference contact first.";
  const dark = contactName(reference, practice);
  if (!measuring) return `Reference at ${dark}. Now tap the measuring contact.`;
  return `Dark probe on ${dark} first, then copper on ${contactName(measuring, practice)}. Off in reverse. One hand.`;
}
