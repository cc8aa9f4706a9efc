/** What may be needed where there is no line, asked for while there is one: sites, kit, proofs and the work in hand. */

import { type DataTag, type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useLine } from "./line";
import { useWaits } from "./outbox/useOutbox";
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
import { putBack } from "./seen";
import { useSession } from "./session";

const AGAIN_MS = 10 * 60_000;
const FRESH_MS = 5 * 60_000;
/** Of each sort the first so many: what is worked on stands first on every list. */
const MOST = 12;
/** Whoever is at work touches the device more often than that, and what is on the screen has come by then. */
const QUIET_MS = 4_000;
const LOOKS_MS = 500;

type Asked<T> = { queryKey: DataTag<(string | undefined)[], T, Error> };
/** Done in a quiet moment; refused where nothing more is wanted. */
type Quiet = () => Promise<void>;

/** One after the other and each in a quiet moment, so that what a person wants waits for none; stops where a line fails. */
async function fetchAhead(queries: QueryClient, quiet: Quiet) {
  const ask = async <T>(asked: Asked<T>) => {
    await putBack(queries, asked.queryKey);
    await quiet();
    return queries.fetchQuery({ ...asked, staleTime: FRESH_MS }) as Promise<T>;
  };
  const each = async (questions: Asked<unknown>[]) => {
    for (const asked of questions) await ask(asked);
  };
  const of = (list: { id: string }[], asked: (id: string) => Asked<unknown>) =>
    each(list.slice(0, MOST).map(({ id }) => asked(id)));
  await each([testersAsked, partsAsked, proofReferenceAsked, sheetReferenceAsked, rulesAsked]);
  const today = await ask(todayAsked);
  const { proofs } = await ask(proofsAsked);
  const open = proofs.filter((one) => one.state !== "closed" && one.state !== "history");
  await of(open, proofAsked);
  await of(await ask(sitesAsked), siteAsked);
  await of(today.visits, visitAsked);
  await of(today.points, benchAsked);
  await of(await ask(roundsAsked), roundAsked);
  await of(await ask(huntsAsked), huntAsked);
  await of((await ask(sheetsAsked)).sheets, sheetAsked);
  await each([equipmentAsked, outletsAsked]);
}

/** A device that is told to save data asks only for what is looked at. */
const savesData = () =>
  (navigator as Navigator & { connection?: { saveData?: boolean } }).connection?.saveData === true;

const pause = (ms: number) => new Promise((later) => setTimeout(later, ms));
const TOUCHES = ["pointerdown", "keydown"] as const;

/** While somebody is signed in and the server answers. */
export function useFetchAhead() {
  const queries = useQueryClient();
  const waits = useWaits();
  const session = useSession().data;
  const ready = session != null && !session.lost && session.role !== "guest";
  const lineDown = useLine() !== null;
  useEffect(() => {
    if (!ready || lineDown || savesData() || CASE !== null) return;
    let here = true;
    let touched = performance.now();
    const touch = () => {
      touched = performance.now();
    };
    const quiet = async () => {
      while (here && (waits() > 0 || performance.now() - touched < QUIET_MS)) await pause(LOOKS_MS);
      if (!here) throw new Error("nothing more is wanted");
    };
    const keepOn = async () => {
      while (here) {
        await fetchAhead(queries, quiet).catch(() => {});
        await pause(AGAIN_MS);
      }
    };
    void keepOn();
    for (const kind of TOUCHES) window.addEventListener(kind, touch, { capture: true, passive: true });
    return () => {
      here = false;
      for (const kind of TOUCHES) window.removeEventListener(kind, touch, { capture: true });
    };
  }, [queries, waits, ready, lineDown]);
}
