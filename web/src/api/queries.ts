/** What the screens ask for, kept by TanStack Query: an answer on screen stays until a newer one is there. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import client, { answer, type Bench, type Practice, Refusal, type Site } from "./client";

export const useSession = () =>
  useQuery({
    queryKey: ["session"],
    queryFn: async () => {
      try {
        return await answer(client.GET("/api/session"));
      } catch (error) {
        if (error instanceof Refusal && error.status === 401) return null;
        throw error;
      }
    },
    staleTime: 60_000,
  });

export const useReference = () =>
  useQuery({
    queryKey: ["reference"],
    queryFn: () => answer(client.GET("/api/reference")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export function usePractice(id: string | undefined): Practice | undefined {
  return useReference().data?.practices.find((practice) => practice.id === id);
}

export const useTesters = () =>
  useQuery({ queryKey: ["testers"], queryFn: () => answer(client.GET("/api/testers")), staleTime: 60_000 });

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
    onSuccess: (bench) => {
      queries.setQueryData(["bench", bench.id], bench);
      void queries.invalidateQueries({ queryKey: ["site", bench.site.id] });
    },
  });
}
