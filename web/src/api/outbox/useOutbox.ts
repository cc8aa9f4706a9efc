/** The outbox of this app, and whoever shows what waits in it. */

import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useSyncExternalStore } from "react";
import { present } from "../clock";
import { newId } from "../ids";
import { lineCutOffSince, watchLine } from "../line";
import { keptAs } from "../sandbox";
import { noteRefusal, useSession } from "../session";
import { askAgain, showAnswer } from "../useRecord";
import { Journal } from "./journal";
import { KINDS } from "./kinds";
import { type InTurn, Outbox } from "./outbox";
import { BrowserStore } from "./store";
import type { Bodies, Kind, Waiting } from "./waiting";

const NO_ANSWER_AFTER_MS = 20_000;
const NAME = keptAs(" outbox");

let outbox: Outbox | null = null;
type WhenSent = (one: Waiting, answer: object) => void;
const whenSent = new Set<WhenSent>();

/** Only secure pages have locks; without them two tabs may send the same, which is the same record at the server. */
const inTurn: InTurn = (send) =>
  navigator.locks ? navigator.locks.request(NAME, send).then(() => {}) : send();

const otherTabs = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel(NAME);

function theOutbox(queries: QueryClient): Outbox {
  if (outbox) return outbox;
  const made = new Outbox(
    async (one) => {
      try {
        const { send, shows } = KINDS[one.kind];
        const asked = present();
        const answer = await send(one, AbortSignal.timeout(NO_ANSWER_AFTER_MS));
        return shows.clocked ? { ...answer, asked } : answer;
      } catch (error) {
        noteRefusal(queries, error);
        throw error;
      }
    },
    async (one, answer) => {
      const { shows } = KINDS[one.kind];
      const shown = showAnswer(queries, shows, answer);
      for (const told of whenSent) told(one, answer);
      await shown;
      await askAgain(queries, shows, answer);
    },
    new BrowserStore(),
    inTurn,
    () => otherTabs?.postMessage("changed"),
    new Journal(localStorage),
  );
  otherTabs?.addEventListener("message", () => void made.refresh());
  outbox = made;
  return made;
}

/** What waits of one place, or all, and what can be done with it. `taken`: what is there too and not shown yet. */
export function useOutbox(of?: string) {
  const outbox = theOutbox(useQueryClient());
  const all = useSyncExternalStore(outbox.watch, outbox.all);
  const forgetful = useSyncExternalStore(outbox.watch, outbox.isForgetful);
  const read = useSyncExternalStore(outbox.watch, outbox.isRead);
  const here = useMemo(() => all.filter((one) => !of || one.of === of), [all, of]);
  const list = useMemo(() => here.filter((one) => !one.arrived), [here]);
  const taken = useMemo(() => here.filter((one) => one.problem === ""), [here]);
  return { list, taken, outbox, read, forgetful };
}

/** How much waits, asked for when it is wanted: nothing is drawn anew for it. */
export const useWaits = (): (() => number) => theOutbox(useQueryClient()).waits;

/** Whether something of this place is on its way just now. */
export function useIsSending(of: string): boolean {
  const outbox = theOutbox(useQueryClient());
  return useSyncExternalStore(outbox.watch, () => outbox.isSending(of));
}

/** What is recorded of one thing, `where` by name: in the outbox at once. `said`: in words; `typed`: to put back. */
export function useKeep<K extends Kind>(kind: K, of: string, where: string) {
  const waiting = useOutbox(of);
  const { outbox } = waiting;
  const keep = useCallback(
    (body: Bodies[K], said: string, typed?: unknown): string => {
      const id = newId();
      outbox.add({ id, kind, of, where, body, said, ...(typed !== undefined && { typed }) });
      return id;
    },
    [outbox, kind, of, where],
  );
  return { keep, waiting };
}

/** Told of each that is there, and of what the server answered. */
export function useWhenSent(told: WhenSent) {
  useEffect(() => {
    whenSent.add(told);
    return () => {
      whenSent.delete(told);
    };
  }, [told]);
}

/** Sends what waits for whoever is signed in, and again as soon as the line is back. */
export function useSending() {
  const outbox = theOutbox(useQueryClient());
  const session = useSession().data;
  const person = session ? `account ${session.account}` : null;
  const lost = session?.lost ?? false;
  useEffect(() => void outbox.of(person), [outbox, person]);
  useEffect(() => {
    if (!lost) outbox.next();
  }, [outbox, lost]);
  useEffect(() => {
    const back = () => lineCutOffSince() === null && outbox.next();
    const stop = watchLine(back);
    window.addEventListener("online", outbox.next);
    return () => {
      stop();
      window.removeEventListener("online", outbox.next);
    };
  }, [outbox]);
}
