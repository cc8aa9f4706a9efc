/** The one way to write something down. */

import { notifyManager, type QueryClient, useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import type { Refusal } from "./client";
import { present } from "./clock";
import { newId } from "./ids";
import type { RecordOf } from "./records";
import { keepShown } from "./seen";

/** An id for what is written, and when it was first tried: both stay while what is sent does. */
export type Attempt = { id: string; at: string };

/** The same content sent again after a failure is the same record, at the time it was first tried. */
export class Attempts {
  private readonly begun = new Map<string, Attempt>();

  of(input: unknown): Attempt {
    const content = JSON.stringify(input) ?? "";
    const attempt = this.begun.get(content) ?? { id: newId(), at: new Date().toISOString() };
    this.begun.set(content, attempt);
    return attempt;
  }

  /** It is there: the same again is another. */
  done(input: unknown) {
    this.begun.delete(JSON.stringify(input) ?? "");
  }
}

/**
 * Writes a record; its answer is shown at once, and what else it changes asked for again in the background.
 * `inTurn`: what is written under this name goes one after the other, whatever was tapped meanwhile.
 */
export function useRecord<T = void, R extends object = object>(
  of: RecordOf<R>,
  send: (input: T, attempt: Attempt) => Promise<R>,
  inTurn?: string,
) {
  const queries = useQueryClient();
  const attempts = useRef(new Attempts());
  return useMutation<R, Refusal, T>({
    mutationFn: async (input) => {
      const asked = present();
      const after = await send(input, attempts.current.of(input));
      attempts.current.done(input);
      return of.clocked ? { ...after, asked } : after;
    },
    onSuccess: (after) => showRecord(queries, of, after),
    ...(inTurn && { scope: { id: inTurn } }),
  });
}

/**
 * What a write answered, where it is shown, and what depends on it asked for again. Where the answer itself is shown
 * nobody waits for the rest; where it is not, the list it is in comes first, so that it can be picked there at once.
 */
export async function showRecord<R extends object>(queries: QueryClient, of: RecordOf<R>, after: R) {
  await showAnswer(queries, of, after);
  const again = askAgain(queries, of, after);
  if (!of.shows) await again;
}

/** What a write answered, where it is shown, at once: whoever shows it was told of it when this is done. */
export async function showAnswer<R extends object>(queries: QueryClient, of: RecordOf<R>, after: R) {
  if (!of.shows) return;
  await queries.cancelQueries({ queryKey: of.shows(after) });
  queries.setQueryData(of.shows(after), after);
  keepShown(queries, of.shows(after));
  await new Promise<void>((told) => notifyManager.schedule(told));
}

/** What depends on it asked for again; done when it is there. */
export async function askAgain<R extends object>(queries: QueryClient, of: RecordOf<R>, after: R) {
  await Promise.all(of.changes(after).map((queryKey) => queries.invalidateQueries({ queryKey })));
}
