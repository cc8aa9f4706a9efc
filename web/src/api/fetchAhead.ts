/** What may be needed where there is no line, asked for while there is one: sites, kit, proofs and the work in hand. */

import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useLine } from "./line";
import {
  benchAsked,
  equipmentAsked,
  huntAsked,
  huntsAsked,
  outletsAsked,
  partsAsked,
  proofAsked,
  proofReferenceAsked,
  proofsAsked,
  roundAsked,
  roundsAsked,
  rulesAsked,
  sheetAsked,
  sheetReferenceAsked,
  sheetsAsked,
  siteAsked,
  sitesAsked,
  testersAsked,
  todayAsked,
  visitAsked,
} from "./queries";
import { CASE } from "./sandbox";
import { useSession } from "./session";

/** What is on the screen comes first. */
const AFTER_MS = 4_000;
const AGAIN_MS = 10 * 60_000;
const FRESH_MS = 5 * 60_000;
/** Of each sort the first so many: what is worked on stands first on every list. */
const MOST = 12;

/** One after the other, so that whatever a person asks for meanwhile is not behind all of it; stops where a line fails. */
async function fetchAhead(queries: QueryClient, alive: () => boolean) {
  const ask = { staleTime: FRESH_MS };
  const of = async <T extends { id: string }>(
    list: T[],
    asked: (id: string) => { queryKey: readonly unknown[] },
  ) => {
    for (const { id } of list.slice(0, MOST)) if (alive()) await queries.fetchQuery({ ...asked(id), ...ask });
  };
  for (const asked of [testersAsked, partsAsked, proofReferenceAsked, sheetReferenceAsked, rulesAsked])
    if (alive()) await queries.fetchQuery({ ...asked, ...ask } as { queryKey: readonly unknown[] });
  const today = await queries.fetchQuery({ ...todayAsked, ...ask });
  const { proofs } = await queries.fetchQuery({ ...proofsAsked, ...ask });
  await of(
    proofs.filter((one) => one.state !== "closed" && one.state !== "history"),
    proofAsked,
  );
  await of(await queries.fetchQuery({ ...sitesAsked, ...ask }), siteAsked);
  await of(today.visits, visitAsked);
  await of(today.points, benchAsked);
  await of(await queries.fetchQuery({ ...roundsAsked, ...ask }), roundAsked);
  await of(await queries.fetchQuery({ ...huntsAsked, ...ask }), huntAsked);
  await of((await queries.fetchQuery({ ...sheetsAsked, ...ask })).sheets, sheetAsked);
  for (const asked of [equipmentAsked, outletsAsked])
    if (alive()) await queries.fetchQuery({ ...asked, ...ask } as { queryKey: readonly unknown[] });
}

/** A device that is told to save data asks only for what is looked at. */
const savesData = () =>
  (navigator as Navigator & { connection?: { saveData?: boolean } }).connection?.saveData === true;

/** While somebody is signed in and the server answers. */
export function useFetchAhead() {
  const queries = useQueryClient();
  const session = useSession().data;
  const ready = session != null && !session.lost && session.role !== "guest";
  const lineDown = useLine() !== null;
  useEffect(() => {
    if (!ready || lineDown || savesData() || CASE !== null) return;
    let here = true;
    const go = () => void fetchAhead(queries, () => here).catch(() => {});
    const first = setTimeout(go, AFTER_MS);
    const again = setInterval(go, AGAIN_MS);
    return () => {
      here = false;
      clearTimeout(first);
      clearInterval(again);
    };
  }, [queries, ready, lineDown]);
}
