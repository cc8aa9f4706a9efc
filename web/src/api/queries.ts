/** What the screens ask for, kept by TanStack Query: an answer on screen stays until a newer one is there. */

import { useQuery } from "@tanstack/react-query";
import client, { answer, type Practice } from "./client";
import { clocked } from "./clock";
import { keys } from "./keys";
import { holdReference } from "./reference";

export const TWO_ON_ONE_MS = 2_000;
export const LOOK_AGAIN_MS = 15_000;

export const useReference = () =>
  useQuery({
    queryKey: keys.reference,
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
  useQuery({ queryKey: keys.testers, queryFn: () => answer(client.GET("/api/testers")), staleTime: 60_000 });

/** Which testers answer on a wire. */
export const useLinks = () =>
  useQuery({ queryKey: keys.links, queryFn: () => answer(client.GET("/api/meters")), staleTime: 30_000 });

export const useProofReference = () =>
  useQuery({
    queryKey: keys.proofReference,
    queryFn: () => answer(client.GET("/api/reference/proofs")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const useParts = () =>
  useQuery({ queryKey: keys.parts, queryFn: () => answer(client.GET("/api/parts")) });

export const useTesterPage = (id: string) =>
  useQuery({
    queryKey: keys.tester(id),
    queryFn: () => answer(client.GET("/api/testers/{tester_id}", { params: { path: { tester_id: id } } })),
  });

export const useToday = () =>
  useQuery({
    queryKey: keys.today,
    queryFn: () => clocked(() => answer(client.GET("/api/today"))),
    refetchInterval: LOOK_AGAIN_MS,
  });

export const useProofs = () =>
  useQuery({
    queryKey: keys.proofs,
    queryFn: () => clocked(async () => ({ proofs: await answer(client.GET("/api/proofs")) })),
    refetchInterval: LOOK_AGAIN_MS,
  });

/** Looked at again all the while, for two people may be on one proof. */
export const useProof = (id: string) =>
  useQuery({
    queryKey: keys.proof(id),
    queryFn: () =>
      clocked(() => answer(client.GET("/api/proofs/{proof_id}", { params: { path: { proof_id: id } } }))),
    refetchInterval: TWO_ON_ONE_MS,
  });

export const useSheetReference = () =>
  useQuery({
    queryKey: keys.sheetReference,
    queryFn: () => answer(client.GET("/api/reference/sheets")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const useSheets = () =>
  useQuery({ queryKey: keys.sheets, queryFn: () => answer(client.GET("/api/sheets")) });

export const useSheet = (id: string) =>
  useQuery({
    queryKey: keys.sheet(id),
    queryFn: () =>
      clocked(() => answer(client.GET("/api/sheets/{sheet_id}", { params: { path: { sheet_id: id } } }))),
    refetchInterval: LOOK_AGAIN_MS,
  });

export const useRules = () =>
  useQuery({ queryKey: keys.rules, queryFn: () => answer(client.GET("/api/rules")) });

export const useRounds = () =>
  useQuery({ queryKey: keys.rounds, queryFn: () => answer(client.GET("/api/rounds")) });

/** Looked at again all the while where one presses and another watches the board. */
export const useRound = (id: string) =>
  useQuery({
    queryKey: keys.round(id),
    queryFn: () => answer(client.GET("/api/rounds/{round_id}", { params: { path: { round_id: id } } })),
    refetchInterval: (query) => (query.state.data?.plugs_in ? TWO_ON_ONE_MS : LOOK_AGAIN_MS),
  });

export const useEquipment = () =>
  useQuery({ queryKey: keys.equipment, queryFn: () => answer(client.GET("/api/equipment")) });

export const useOutlets = () =>
  useQuery({ queryKey: keys.outlets, queryFn: () => answer(client.GET("/api/outlets")) });

export const usePlugIn = (point: string, equipment: string, tester: string | undefined) =>
  useQuery({
    queryKey: keys.plugIn(point, equipment, tester),
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
  useQuery({ queryKey: keys.sites, queryFn: () => answer(client.GET("/api/sites")) });

export const useSite = (id: string | undefined) =>
  useQuery({
    queryKey: keys.site(id),
    queryFn: () => answer(client.GET("/api/sites/{site_id}", { params: { path: { site_id: id ?? "" } } })),
    enabled: id !== undefined,
  });

export const useBench = (id: string) =>
  useQuery({
    queryKey: keys.bench(id),
    queryFn: () => answer(client.GET("/api/points/{point_id}/bench", { params: { path: { point_id: id } } })),
    refetchInterval: LOOK_AGAIN_MS,
  });
