/**
 * What was last seen, kept on this device for whoever is signed in, so that it can be read without a line, with its age.
 * Signing out takes it off the device.
 */

import {
  type AsyncStorage,
  experimental_createQueryPersister,
  type PersistedQuery,
} from "@tanstack/query-persist-client-core";
import { hashKey, type QueryClient, type QueryKey } from "@tanstack/react-query";
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { keys } from "./keys";

declare const __SHAPES__: string;

interface Schema extends DBSchema {
  seen: { key: string; value: string };
}

const KEPT_MS = 30 * 24 * 3600 * 1000;
/** What every place is drawn from; not what is only asked while something is typed. */
const KEPT = new Set(
  [
    keys.session,
    keys.reference,
    keys.today,
    keys.testers,
    keys.parts,
    keys.outOfUse,
    keys.sites,
    keys.anySite,
    keys.anyBench,
    keys.proofs,
    keys.anyProof,
    keys.rules,
    keys.sheets,
    keys.anySheet,
    keys.rounds,
    keys.anyRound,
    keys.hunts,
    keys.anyHunt,
    keys.equipment,
    keys.outlets,
    keys.anyPlugIn,
  ].map(([first]) => first),
);

let database: Promise<IDBPDatabase<Schema>> | null = null;

const open = async () =>
  openDB<Schema>("even-probe seen", 1, {
    upgrade: (made) => void made.createObjectStore("seen"),
    terminated: () => {
      database = null;
    },
  });

/** Opened once; anew where that failed. */
function opened() {
  database ??= open().catch((error) => {
    database = null;
    throw error;
  });
  return database;
}

let somebodyIsHere = true;

/** Where the browser keeps nothing there is nothing to read without a line, and all else is as it was. */
const storage: AsyncStorage<string> = {
  getItem: async (key) => (await opened().then((seen) => seen.get("seen", key), nothing)) ?? null,
  setItem: async (key, value) => {
    if (somebodyIsHere) await opened().then((seen) => seen.put("seen", value, key), nothing);
  },
  removeItem: async (key) => opened().then((seen) => seen.delete("seen", key), nothing),
};
const nothing = () => undefined;

/** Nobody is signed in: what still comes for whoever was is not kept either. */
export const forgetSeen = async (): Promise<void> => {
  somebodyIsHere = false;
  await opened().then((seen) => seen.clear("seen"), nothing);
};

export const keepSeen = () => {
  somebodyIsHere = true;
};

const { persisterFn, persistQueryByKey, retrieveQuery } = experimental_createQueryPersister({
  storage,
  maxAge: KEPT_MS,
  buster: __SHAPES__,
  refetchOnRestore: "always",
  filters: { predicate: ({ queryKey }) => KEPT.has(queryKey[0] as string) },
});

/** Keeps what is asked for, and gives it back where nothing was asked yet. */
export const persister = persisterFn;

/** What a write answered, where it is shown, is seen too. */
export const keepShown = (queries: QueryClient, key: QueryKey) =>
  void persistQueryByKey([...key], queries).catch(nothing);

/** What was last seen, put where it is shown from with its age; nothing is asked for. */
export async function putBack(queries: QueryClient, key: QueryKey) {
  if (queries.getQueryData(key) !== undefined) return;
  const seen = await new Promise<PersistedQuery | null>((found) => {
    void retrieveQuery(hashKey(key), found).then((data) => data === undefined && found(null));
  });
  if (seen && queries.getQueryData(key) === undefined)
    queries.setQueryData(key, seen.state.data, { updatedAt: seen.state.dataUpdatedAt });
}
