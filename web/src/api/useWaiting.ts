/** The readings of this app that wait to be sent, and whoever shows them. */

import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import client, { answer, asTyped, type Reading } from "./client";
import { lineCutOffSince, watchLine } from "./line";
import { BENCH } from "./records";
import { noteRefusal, useSession } from "./session";
import { askAgain, showAnswer } from "./useRecord";
import { type Waiting, WaitingReadings } from "./waiting";

let waiting: WaitingReadings | null = null;
const whenSent = new Set<(one: Waiting) => void>();

function waitingReadings(queries: QueryClient): WaitingReadings {
  waiting ??= new WaitingReadings(
    async (one) => {
      try {
        return await answer(
          client.PUT("/api/points/{point_id}/readings/{reading_id}", {
            params: { path: { point_id: one.point, reading_id: one.id } },
            body: { ...one.body, entry: asTyped<Reading["entry"]>(one.body.entry) },
          }),
        );
      } catch (error) {
        noteRefusal(queries, error);
        throw error;
      }
    },
    async (one, bench) => {
      await showAnswer(queries, BENCH, bench);
      for (const told of whenSent) told(one);
      await askAgain(queries, BENCH, bench);
    },
    localStorage,
  );
  return waiting;
}

/** Those of one point, or all, and what can be done with them. `taken`: those too that are there and not shown yet. */
export function useWaiting(point?: string) {
  const readings = waitingReadings(useQueryClient());
  const all = useSyncExternalStore(readings.watch, readings.all);
  const sending = useSyncExternalStore(readings.watch, readings.isSending);
  const here = useMemo(() => all.filter((one) => !point || one.point === point), [all, point]);
  const list = useMemo(() => here.filter((one) => !one.arrived), [here]);
  const taken = useMemo(() => here.filter((one) => one.problem === ""), [here]);
  return { list, taken, readings, sending: list.some((one) => one.id === sending) };
}

/** Told of each that is there. */
export function useWhenSent(told: (one: Waiting) => void) {
  useEffect(() => {
    whenSent.add(told);
    return () => {
      whenSent.delete(told);
    };
  }, [told]);
}

/** Sends what waits for whoever is signed in, and again as soon as the line is back. */
export function useSendWaiting() {
  const readings = waitingReadings(useQueryClient());
  const session = useSession().data;
  const person = session ? `${session.crew} ${session.name}` : null;
  const lost = session?.lost ?? false;
  useEffect(() => readings.of(person), [readings, person]);
  useEffect(() => {
    if (!lost) readings.next();
  }, [readings, lost]);
  useEffect(() => {
    const back = () => lineCutOffSince() === null && readings.next();
    const stop = watchLine(back);
    window.addEventListener("online", readings.next);
    return () => {
      stop();
      window.removeEventListener("online", readings.next);
    };
  }, [readings]);
}

export type { Waiting };
