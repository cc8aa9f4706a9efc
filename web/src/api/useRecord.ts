/** The one way to write something down. */

import {
  defaultScheduler,
  notifyManager,
  type QueryClient,
  useMutation,
  useQueryClient,
} from "@tanstack/react-query";
import { useRef } from "react";
import type { Refusal } from "./client";
import { present } from "./clock";
import { newId } from "./ids";
import type { RecordOf } from "./records";
import { keepShown } from "./seen";

/** A phone is slow: what was answered is drawn before anything else is done with it. */
const DRAWN_AFTER_MS = 40;
const drawn = () => new Promise<void>((done) => setTimeout(done, DRAWN_AFTER_MS));

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
  const queryKey = of.shows(after);
  if (queries.isFetching({ queryKey, exact: true })) await queries.cancelQueries({ queryKey });
  tellAtOnce(() => queries.setQueryData(queryKey, after));
  void drawn().then(() => keepShown(queries, queryKey));
  await new Promise<void>((told) => notifyManager.schedule(told));
}

/** Whoever shows it is told in this task and not the next, so that it is drawn with all else that the answer changes. */
function tellAtOnce(change: () => void) {
  notifyManager.setScheduler(queueMicrotask);
  try {
    change();
  } finally {
    notifyManager.setScheduler(defaultScheduler);
  }
}

/** The rest of it, where there is more, and then what depends on it asked for again; done when all is there. */
export async function askAgain<R extends object>(queries: QueryClient, of: RecordOf<R>, after: R) {
  const rest = of.rest?.(after);
  if (rest) {
    await drawn();
    await rest(queries).catch(() => "asked for again with the next poll");
  }
  await Promise.all(of.changes(after).map((queryKey) => queries.invalidateQueries({ queryKey })));
}
