/** A case as its page is opened: all that it shows first is asked for at once, not one after the other. */

import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { caseAsked } from "./practice";
import { benchAsked, referenceAsked, testersAsked } from "./queries";
import { CASE } from "./sandbox";

/** While its page opens what is asked of a case is as good as new: nobody else does anything in it. */
export const OPENING_MS = 2_000;

/** Where it begins at one. */
async function openBench(queries: QueryClient) {
  const { point, hunt } = await queries.fetchQuery(caseAsked);
  if (hunt === null) await queries.prefetchQuery(benchAsked(point.id));
}

export function useOpening() {
  const queries = useQueryClient();
  useEffect(() => {
    if (CASE === null) return;
    void queries.prefetchQuery(referenceAsked);
    void queries.prefetchQuery(testersAsked);
    void openBench(queries).catch(() => undefined);
  }, [queries]);
}
