/** What the screens ask for, kept by TanStack Query: an answer on screen stays until a newer one is there. */

import { type QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { holdReference } from "../reading/reference";
import client, {
  answer,
  type Bench,
  type Practice,
  type Proof,
  type Refusal,
  type Round,
  type Sheet,
  type Site,
} from "./client";
import { clocked, type Moment } from "./clock";

export const TWO_ON_ONE_MS = 2_000;
export const LOOK_AGAIN_MS = 15_000;

export const useReference = () =>
  useQuery({
    queryKey: ["reference"],
    queryFn: async () => {
      const reference = await answer(client.GET("/api/reference"));
      holdReference(reference);
      return reference;
    },
    staleTime: Number.POSITIVE_INFINITY,
  });

export function usePractice(id: string | undefined): Practice | undefined {
  return useReference().data?.practices.find((practice) => practice.id === id);
}

export const useTesters = () =>
  useQuery({ queryKey: ["testers"], queryFn: () => answer(client.GET("/api/testers")), staleTime: 60_000 });

/** Which testers answer on a wire. */
export const useLinks = () =>
  useQuery({ queryKey: ["meters"], queryFn: () => answer(client.GET("/api/meters")), staleTime: 30_000 });

export const useProofReference = () =>
  useQuery({
    queryKey: ["reference", "proofs"],
    queryFn: () => answer(client.GET("/api/reference/proofs")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const useParts = () =>
  useQuery({ queryKey: ["parts"], queryFn: () => answer(client.GET("/api/parts")) });

export const useTesterPage = (id: string) =>
  useQuery({
    queryKey: ["testers", id],
    queryFn: () => answer(client.GET("/api/testers/{tester_id}", { params: { path: { tester_id: id } } })),
  });

export const useToday = () =>
  useQuery({
    queryKey: ["today"],
    queryFn: () => clocked(() => answer(client.GET("/api/today"))),
    refetchInterval: LOOK_AGAIN_MS,
  });

export const useProofs = () =>
  useQuery({
    queryKey: ["proofs"],
    queryFn: () => clocked(async () => ({ proofs: await answer(client.GET("/api/proofs")) })),
    refetchInterval: LOOK_AGAIN_MS,
  });

/** Looked at again all the while, for two people may be on one proof. */
export const useProof = (id: string) =>
  useQuery({
    queryKey: ["proof", id],
    queryFn: () =>
      clocked(() => answer(client.GET("/api/proofs/{proof_id}", { params: { path: { proof_id: id } } }))),
    refetchInterval: TWO_ON_ONE_MS,
  });

export const useSheetReference = () =>
  useQuery({
    queryKey: ["reference", "sheets"],
    queryFn: () => answer(client.GET("/api/reference/sheets")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const useSheets = () =>
  useQuery({ queryKey: ["sheets"], queryFn: () => answer(client.GET("/api/sheets")) });

export const useSheet = (id: string) =>
  useQuery({
    queryKey: ["sheet", id],
    queryFn: () =>
      clocked(() => answer(client.GET("/api/sheets/{sheet_id}", { params: { path: { sheet_id: id } } }))),
    refetchInterval: LOOK_AGAIN_MS,
  });

/** A write that answers with the sheet as it then is; what dead tests decide elsewhere is asked for again. */
export function useSheetWrite<T>(write: (input: T) => Promise<Sheet>) {
  const queries = useQueryClient();
  return useMutation<Sheet & { asked: Moment }, Refusal, T>({
    mutationFn: (input) => clocked(() => write(input)),
    onSuccess: async (sheet) => {
      await queries.cancelQueries({ queryKey: ["sheet", sheet.id] });
      queries.setQueryData(["sheet", sheet.id], sheet);
      for (const key of ["sheets", "bench", "site", "proofs"])
        void queries.invalidateQueries({ queryKey: [key] });
    },
  });
}

export const useRules = () =>
  useQuery({ queryKey: ["rules"], queryFn: () => answer(client.GET("/api/rules")) });

/** A write of the kit's; what depends on the kit is asked for again. */
export function useKitWrite<T, R>(write: (input: T) => Promise<R>) {
  const queries = useQueryClient();
  return useMutation<R, Refusal, T>({
    mutationFn: write,
    onSuccess: () =>
      Promise.all(
        ["testers", "parts", "today"].map((queryKey) => queries.invalidateQueries({ queryKey: [queryKey] })),
      ),
  });
}

/** A write that answers with the proof as it then is. */
export function useProofWrite<T>(write: (input: T) => Promise<Proof>) {
  const queries = useQueryClient();
  return useMutation<Proof & { asked: Moment }, Refusal, T>({
    mutationFn: (input) => clocked(() => write(input)),
    onSuccess: async (proof) => {
      await queries.cancelQueries({ queryKey: ["proof", proof.id] });
      queries.setQueryData(["proof", proof.id], proof);
      for (const key of ["proofs", "sheet"]) void queries.invalidateQueries({ queryKey: [key] });
    },
  });
}

export const useRounds = () =>
  useQuery({ queryKey: ["rounds"], queryFn: () => answer(client.GET("/api/rounds")) });

/** Looked at again all the while where one presses and another watches the board. */
export const useRound = (id: string) =>
  useQuery({
    queryKey: ["round", id],
    queryFn: () => answer(client.GET("/api/rounds/{round_id}", { params: { path: { round_id: id } } })),
    refetchInterval: (query) => (query.state.data?.plugs_in ? TWO_ON_ONE_MS : LOOK_AGAIN_MS),
  });

/** A write that answers with the round as it then is; what it recorded shows elsewhere too. */
export function useRoundWrite<T>(write: (input: T) => Promise<Round>) {
  const queries = useQueryClient();
  return useMutation<Round, Refusal, T>({
    mutationFn: write,
    onSuccess: async (round) => {
      await queries.cancelQueries({ queryKey: ["round", round.id] });
      queries.setQueryData(["round", round.id], round);
      for (const key of ["rounds", "bench", "site", "today"])
        void queries.invalidateQueries({ queryKey: [key] });
    },
  });
}

export const useEquipment = () =>
  useQuery({ queryKey: ["equipment"], queryFn: () => answer(client.GET("/api/equipment")) });

export const useOutlets = () =>
  useQuery({ queryKey: ["outlets"], queryFn: () => answer(client.GET("/api/outlets")) });

export const usePlugIn = (point: string, equipment: string, tester: string | undefined) =>
  useQuery({
    queryKey: ["plug-in", point, equipment, tester],
    queryFn: () =>
      answer(
        client.GET("/api/points/{point_id}/plug-in/{equipment_id}", {
          params: { path: { point_id: point, equipment_id: equipment }, query: { tester } },
        }),
      ),
    placeholderData: (before) => before,
    refetchInterval: LOOK_AGAIN_MS,
  });

export const useSites = () =>
  useQuery({ queryKey: ["sites"], queryFn: () => answer(client.GET("/api/sites")) });

export const useSite = (id: string | undefined) =>
  useQuery({
    queryKey: ["site", id],
    queryFn: () => answer(client.GET("/api/sites/{site_id}", { params: { path: { site_id: id ?? "" } } })),
    enabled: id !== undefined,
  });

export const useBench = (id: string) =>
  useQuery({
    queryKey: ["bench", id],
    queryFn: () => answer(client.GET("/api/points/{point_id}/bench", { params: { path: { point_id: id } } })),
    refetchInterval: LOOK_AGAIN_MS,
  });

/** A write that answers with the site as it then is. */
export function useSiteWrite<T>(write: (input: T) => Promise<Site>) {
  const queries = useQueryClient();
  return useMutation<Site, Refusal, T>({
    mutationFn: write,
    onSuccess: (site) => {
      queries.setQueryData(["site", site.id], site);
      void queries.invalidateQueries({ queryKey: ["sites"] });
    },
  });
}

/** A write that answers with the Bench as it then is; the runs it is drawn on follow in the background. */
export function useBenchWrite<T>(write: (input: T) => Promise<Bench>) {
  const queries = useQueryClient();
  return useMutation<Bench, Refusal, T>({
    mutationFn: write,
    onSuccess: (bench) => showBench(queries, bench),
  });
}

/** The Bench as a write left it, and what else shows it asked for again. */
export async function showBench(queries: QueryClient, bench: Bench) {
  await queries.cancelQueries({ queryKey: ["bench", bench.id] });
  queries.setQueryData(["bench", bench.id], bench);
  for (const key of [["site", bench.site.id], ["round"], ["rounds"], ["plug-in"], ["today"]])
    void queries.invalidateQueries({ queryKey: key });
}
