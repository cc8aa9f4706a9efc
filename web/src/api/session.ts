/**
 * Who is signed in here. Signing out takes everything off the screen. When it is the server that no longer knows
 * the person, whatever is being typed stays where it is, and signing in is asked for over it.
 */

import { type QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import client, { type Act, answer, Refusal, type Session } from "./client";
import { forgetDrafts } from "./drafts";
import { forgetAnswers } from "./fetchedOnce";
import { keys } from "./keys";
import { forgetPoints } from "./lastPoints";
import { forgetTesters } from "./lastTester";
import { forgetSeen, keepSeen } from "./seen";

const NOT_SIGNED_IN = 401;

type Here = Session & { lost?: boolean };

const refused = (error: unknown) => error instanceof Refusal && error.status === NOT_SIGNED_IN;

/** What this device keeps of a person, but for what waits to be sent. */
async function forgetPerson() {
  forgetPoints();
  forgetDrafts();
  forgetTesters();
  forgetAnswers();
  await forgetSeen();
}

/** Another person: nothing of the one before stays on the screen or the device. */
async function beginAnew() {
  await forgetPerson();
  window.location.assign("/today");
}

/** What the server says once; any later refusal comes through `noteRefusal`. */
export const useSession = () =>
  useQuery<Here | null>({
    queryKey: keys.session,
    queryFn: async ({ client: queries }) => {
      try {
        const session = await answer(client.GET("/api/session"));
        const before = queries.getQueryData<Here | null>(keys.session);
        if (before && before.account !== session.account) await beginAnew();
        return session;
      } catch (error) {
        if (refused(error)) return null;
        throw error;
      }
    },
    staleTime: Number.POSITIVE_INFINITY,
  });

/** Whether one's role does something alone. */
export function useMay(act: Act): boolean {
  return useSession().data?.may.includes(act) ?? false;
}

/** Whether one's role does something only with a second person. */
export function useNeedsSecond(act: Act): boolean {
  return useSession().data?.beside.includes(act) ?? false;
}

export function useSignIn() {
  const queries = useQueryClient();
  return useMutation<Session, Refusal, { username: string; password: string; code: string }>({
    mutationFn: (body) => answer(client.POST("/api/session", { body })),
    onSuccess: (session) => {
      const before = queries.getQueryData<Here | null>(keys.session);
      if (before && before.account !== session.account) {
        void beginAnew();
        return;
      }
      keepSeen();
      queries.setQueryData(keys.session, session);
      queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== keys.session[0] });
    },
  });
}

/** The server is told though the page is left at the same moment. */
export function useSignOut() {
  const queries = useQueryClient();
  return useMutation<void, Refusal>({
    mutationFn: async () => {
      const told = answer(client.DELETE("/api/session", { keepalive: true }));
      const [, server] = await Promise.allSettled([forgetPerson(), told]);
      if (server.status === "rejected" && !refused(server.reason)) throw server.reason;
    },
    onError: keepSeen,
    onSuccess: () => {
      queries.setQueryData(keys.session, null);
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== keys.session[0] });
    },
  });
}

/** Told of every failure of a query or a change: was it that nobody is signed in any more? */
export function noteRefusal(queries: QueryClient, error: unknown) {
  if (refused(error))
    queries.setQueryData<Here | null>(keys.session, (here) =>
      here && !here.lost ? { ...here, lost: true } : here,
    );
}
