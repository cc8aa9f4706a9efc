/** How old an answer on screen is: it is only as good as that. */

import { useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { keys } from "./keys";
import { useLine } from "./line";
import { useByTheClock } from "./useByTheClock";

/** What is asked of a query, as TanStack Query has it. */
export type Asked = {
  dataUpdatedAt: number;
  fetchStatus: "fetching" | "paused" | "idle";
  isError: boolean;
  failureCount: number;
};

const SLOWEST_POLLS = 3;
const AGELESS: readonly string[] = [...keys.session, ...keys.reference];

/** The time between two answers, as polls go: no less than was meant, and on a slow line what it really is. */
export const pollOf = (meant: number, apart: number) =>
  Math.min(Math.max(meant, apart), SLOWEST_POLLS * meant);

/**
 * Whether an answer is no more than last known: the request is paused or failed, or two polls have gone by. What is asked
 * for the first time has no age yet.
 */
export const isCutOff = (query: Asked, poll: number, lineDown: boolean, now: number) =>
  lineDown ||
  query.fetchStatus === "paused" ||
  query.isError ||
  query.failureCount > 0 ||
  (query.dataUpdatedAt > 0 && now - query.dataUpdatedAt > 2 * poll);

/**
 * Since when an answer is only last known, in ms since 1970; null while it is as good as new. `pollMs`: how often it is
 * asked for.
 */
export function useCutOff(query: Asked, pollMs: number): number | null {
  const lineDown = useLine() !== null;
  const heard = useRef({ at: query.dataUpdatedAt, apart: 0 });
  if (query.dataUpdatedAt > heard.current.at)
    heard.current = { at: query.dataUpdatedAt, apart: query.dataUpdatedAt - heard.current.at };
  const poll = pollOf(pollMs, heard.current.apart);
  const cutOff = useByTheClock(() => isCutOff(query, poll, lineDown, Date.now()));
  return cutOff ? query.dataUpdatedAt || Date.now() : null;
}

/** "Cut off for 3 min." */
export function cutOffFor(cutOff: number, now = Date.now()): string {
  const minutes = Math.floor((now - cutOff) / 60_000);
  const hours = Math.floor(minutes / 60);
  const days = Math.floor(hours / 24);
  const long =
    days > 1
      ? `${days} days`
      : hours > 1
        ? `${hours} h`
        : minutes < 1
          ? "less than a minute"
          : `${minutes} min`;
  return `Cut off for ${long}.`;
}

/** "Last known at 10:41. Cut off for 3 min." */
export function lastKnown(cutOff: number, now = Date.now()): string {
  const at = new Date(cutOff);
  const sameDay = at.toDateString() === new Date(now).toDateString();
  const when = at.toLocaleString(
    [],
    sameDay ? { timeStyle: "short" } : { dateStyle: "medium", timeStyle: "short" },
  );
  return `Last known at ${when}. ${cutOffFor(cutOff, now)}`;
}

/** When the oldest of the answers on screen came, in ms since 1970; null where none did. Tables of the trade do not age. */
export function useOldestSeen(): number | null {
  const queries = useQueryClient();
  return useByTheClock(() => {
    const seen = queries
      .getQueryCache()
      .findAll({ type: "active", predicate: ({ queryKey }) => !AGELESS.includes(queryKey[0] as string) })
      .map((query) => query.state.dataUpdatedAt)
      .filter((at) => at > 0);
    return seen.length > 0 ? Math.min(...seen) : null;
  });
}
