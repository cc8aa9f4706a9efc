/** Practice: what there is to go through, and inside a case how far it is and what is done there. */

import { queryOptions, skipToken, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import client, { answer, type CaseHere } from "./client";
import { keys } from "./keys";
import { marked } from "./marked";
import { BEGUN, CASE_HERE } from "./records";
import { addressOfCase, CASE } from "./sandbox";
import { useRecord } from "./useRecord";

export const usePracticeList = () =>
  useQuery({ queryKey: keys.practice, queryFn: () => answer(client.GET("/api/practice")) });

/** One that ships by its name, one drawn, or one of a file. */
type Chosen = {
  name?: string;
  case?: Record<string, unknown>;
  drawn?: { step: number; seed: number };
};

/** Opens a case and goes into it. */
export function useBeginning() {
  const begin = useRecord<Chosen, CaseHere>(BEGUN, (chosen, { id }) =>
    answer(
      client.PUT("/api/practice/{case_id}", {
        params: { path: { case_id: id } },
        body: { name: "", ...chosen },
      }),
    ),
  );
  const open = (chosen: Chosen) =>
    begin.mutate(chosen, { onSuccess: ({ id }) => window.location.assign(addressOfCase(id)) });
  return { open, begin };
}

export const caseAsked = queryOptions({
  queryKey: keys.caseHere,
  queryFn: () => answer(client.GET("/api/practised")),
});

/** The case this page is in; nothing outside one. */
export const useCase = () => useQuery({ ...caseAsked, enabled: CASE !== null });

export const useDebrief = () =>
  useQuery({ queryKey: keys.debrief, queryFn: () => answer(client.GET("/api/practised/debrief")) });

/** The case as a file, for somebody else; only once it is over. */
export const sharedCase = () => answer(client.GET("/api/practised/case"));

export type CaseAct = {
  doing:
    | "off"
    | "on"
    | "locked"
    | "unlocked"
    | "looked"
    | "feed-off"
    | "feed-on"
    | "feed-locked"
    | "feed-unlocked"
    | "opened"
    | "probed"
    | "touched"
    | "ruled-out"
    | "hint"
    | "shown"
    | "concluded";
  conditions?: string[];
  entry?: object;
  tester?: string | null;
  point?: string | null;
};

/** Something done at the case, and what came of it: one thing after the other, so that no answer is overtaken. */
export const useDo = () =>
  useRecord<CaseAct, CaseHere>(
    CASE_HERE,
    ({ conditions = [], entry = {}, ...act }, { id }) =>
      answer(
        client.PUT("/api/practised/acts/{act_id}", {
          params: { path: { act_id: id } },
          body: { ...act, conditions, entry: entry as Record<string, unknown> },
        }),
      ),
    "acts",
  );

/**
 * What one takes to be ruled out in a case, by id; nothing outside one, or once it is over. What is tapped is shown at
 * once, and the next tap builds on it, however long an answer takes; where the server will not have it, it is as it was,
 * and why is said where it was tapped.
 */
export function useMarks() {
  const here = useCase().data;
  const queries = useQueryClient();
  const tapped = useQuery<string[]>({ queryKey: keys.marks, queryFn: skipToken }).data;
  const [last, setLast] = useState("");
  const act = useDo();
  if (!here || here.over) return null;
  const toggle = (id: string) => {
    setLast(id);
    const conditions = marked(queries.getQueryData<string[]>(keys.marks) ?? here.ruled_out, id);
    queries.setQueryData(keys.marks, conditions);
    const asTheServerHasIt = () => queries.resetQueries({ queryKey: keys.marks });
    act.mutate({ doing: "ruled-out", conditions }, { onSettled: asTheServerHasIt });
  };
  return {
    out: new Set(tapped ?? here.ruled_out),
    toggle,
    errorAt: (id: string) => (id === last ? act.error : null),
  };
}

/** What the tester shows with its probes there, looked at again and again while they are on. */
export const useDisplay = (entry: object | null, tester: string | null, point: string | null, on: boolean) =>
  useQuery({
    queryKey: keys.display(entry, tester, point),
    queryFn: () =>
      answer(
        client.POST("/api/practised/shown", {
          body: { entry: entry as Record<string, unknown> | null, tester, point },
        }),
      ),
    enabled: on,
    refetchInterval: 700,
    retry: false,
    gcTime: 0,
  });

/** Whether what the readings allow may be seen: in a case once it was asked for, or is over. */
export function useIsShown(): boolean {
  const here = useCase().data;
  return CASE === null || here?.shown === true || here?.over === true;
}
