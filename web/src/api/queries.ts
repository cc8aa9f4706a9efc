/**
 * What the screens ask for, kept by TanStack Query: an answer on screen stays until a newer one is there. `…Asked` is one
 * question, for whoever asks it ahead of time.
 */

import { queryOptions, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import client, { answer, type Happened, type Practice, type Site } from "./client";
import { clocked } from "./clock";
import { keys } from "./keys";
import { holdReference } from "./reference";

export type Scope = "point" | "circuit" | "site" | "tester" | "crew";

export const TWO_ON_ONE_MS = 2_000;
export const LOOK_AGAIN_MS = 15_000;

/** Whether a point's answer is being worked out again, so that it is soon another. */
const anyOld = (points: { old: string }[] = []) => points.some(({ old }) => old !== "");
const pointsOf = (site?: Site) =>
  site?.supplies.flatMap(({ boards }) =>
    boards.flatMap(({ circuits }) => circuits.flatMap(({ points }) => points)),
  );

export const referenceAsked = queryOptions({
  queryKey: keys.reference,
  queryFn: () => answer(client.GET("/api/reference")),
  staleTime: Number.POSITIVE_INFINITY,
});

/** The tables of the trade, held for whoever looks something up in them; what was seen earlier is as good. */
export function useReference() {
  const reference = useQuery(referenceAsked);
  if (reference.data) holdReference(reference.data);
  return reference;
}

export function usePractice(id: string | undefined): Practice | undefined {
  return useReference().data?.practices.find((practice) => practice.id === id);
}

export const testersAsked = queryOptions({
  queryKey: keys.testers,
  queryFn: () => answer(client.GET("/api/testers")),
  staleTime: 60_000,
});
/** `wanted`: a guest has no kit to look at. */
export const useTesters = (wanted = true) => useQuery({ ...testersAsked, enabled: wanted });

/** Which testers answer on a wire. */
export const useLinks = () =>
  useQuery({ queryKey: keys.links, queryFn: () => answer(client.GET("/api/meters")), staleTime: 30_000 });

export const proofReferenceAsked = queryOptions({
  queryKey: keys.proofReference,
  queryFn: () => answer(client.GET("/api/reference/proofs")),
  staleTime: Number.POSITIVE_INFINITY,
});
export const useProofReference = () => useQuery(proofReferenceAsked);

export const partsAsked = queryOptions({
  queryKey: keys.parts,
  queryFn: () => answer(client.GET("/api/parts")),
});
export const useParts = () => useQuery(partsAsked);

export const useBrought = () =>
  useQuery({ queryKey: keys.brought, queryFn: () => answer(client.GET("/api/brought")) });

export const useStanding = (what: "not-safe" | "failed" | "not-tested", since: string) =>
  useInfiniteQuery({
    queryKey: keys.standing(what, since),
    queryFn: ({ pageParam: skip }) =>
      answer(
        client.GET("/api/standing/{what}", {
          params: { path: { what }, query: since ? { since, skip } : { skip } },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => (last.more ? pages.flatMap((page) => page.points).length : undefined),
    refetchInterval: LOOK_AGAIN_MS,
  });

export const useKitOutOfUse = () =>
  useQuery({ queryKey: keys.outOfUse, queryFn: () => answer(client.GET("/api/kit/out-of-use")) });

export const useTesterPage = (id: string) =>
  useQuery({
    queryKey: keys.tester(id),
    queryFn: () => answer(client.GET("/api/testers/{tester_id}", { params: { path: { tester_id: id } } })),
  });

export const todayAsked = queryOptions({
  queryKey: keys.today,
  queryFn: () => clocked(() => answer(client.GET("/api/today"))),
  refetchInterval: ({ state }) => (state.data?.points_old ? TWO_ON_ONE_MS : LOOK_AGAIN_MS),
});
export const useToday = () => useQuery(todayAsked);

export const proofsAsked = queryOptions({
  queryKey: keys.proofs,
  queryFn: () => clocked(async () => ({ proofs: await answer(client.GET("/api/proofs")) })),
  refetchInterval: LOOK_AGAIN_MS,
});
export const useProofs = () => useQuery(proofsAsked);

/** Looked at again all the while, for two people may be on one proof. */
export const proofAsked = (id: string) =>
  queryOptions({
    queryKey: keys.proof(id),
    queryFn: () =>
      clocked(() => answer(client.GET("/api/proofs/{proof_id}", { params: { path: { proof_id: id } } }))),
    refetchInterval: TWO_ON_ONE_MS,
  });
export const useProof = (id: string) => useQuery(proofAsked(id));

export const sheetReferenceAsked = queryOptions({
  queryKey: keys.sheetReference,
  queryFn: () => answer(client.GET("/api/reference/sheets")),
  staleTime: Number.POSITIVE_INFINITY,
});
export const useSheetReference = () => useQuery(sheetReferenceAsked);

export const sheetsAsked = queryOptions({
  queryKey: keys.sheets,
  queryFn: () => answer(client.GET("/api/sheets")),
});
export const useSheets = () => useQuery(sheetsAsked);

export const sheetAsked = (id: string) =>
  queryOptions({
    queryKey: keys.sheet(id),
    queryFn: () =>
      clocked(() => answer(client.GET("/api/sheets/{sheet_id}", { params: { path: { sheet_id: id } } }))),
    refetchInterval: LOOK_AGAIN_MS,
  });
export const useSheet = (id: string) => useQuery(sheetAsked(id));

export const rulesAsked = queryOptions({
  queryKey: keys.rules,
  queryFn: () => answer(client.GET("/api/rules")),
});
export const useRules = () => useQuery(rulesAsked);

export const roundsAsked = queryOptions({
  queryKey: keys.rounds,
  queryFn: () => answer(client.GET("/api/rounds")),
});
export const useRounds = () => useQuery(roundsAsked);

/** Looked at again all the while where one presses and another watches the board. */
export const roundAsked = (id: string) =>
  queryOptions({
    queryKey: keys.round(id),
    queryFn: () => answer(client.GET("/api/rounds/{round_id}", { params: { path: { round_id: id } } })),
    refetchInterval: (query) => (query.state.data?.plugs_in ? TWO_ON_ONE_MS : LOOK_AGAIN_MS),
  });
export const useRound = (id: string) => useQuery(roundAsked(id));

export const huntsAsked = queryOptions({
  queryKey: keys.hunts,
  queryFn: () => answer(client.GET("/api/hunts")),
});
export const useHunts = () => useQuery(huntsAsked);

export const huntAsked = (id: string) =>
  queryOptions({
    queryKey: keys.hunt(id),
    queryFn: () => answer(client.GET("/api/hunts/{hunt_id}", { params: { path: { hunt_id: id } } })),
    refetchInterval: LOOK_AGAIN_MS,
  });
export const useHunt = (id: string) => useQuery(huntAsked(id));

export const useIntake = (site: string) =>
  useQuery({
    queryKey: keys.intake(site),
    queryFn: () =>
      answer(client.GET("/api/sites/{site_id}/hunts/intake", { params: { path: { site_id: site } } })),
    enabled: site !== "",
  });

export const visitsAsked = queryOptions({
  queryKey: keys.visits,
  queryFn: () => answer(client.GET("/api/visits")),
});
export const useVisits = () => useQuery(visitsAsked);

export const visitAsked = (id: string) =>
  queryOptions({
    queryKey: keys.visit(id),
    queryFn: () => answer(client.GET("/api/visits/{visit_id}", { params: { path: { visit_id: id } } })),
    refetchInterval: LOOK_AGAIN_MS,
  });
export const useVisit = (id: string) => useQuery(visitAsked(id));

export const usePlannable = (site: string) =>
  useQuery({
    queryKey: keys.plannable(site),
    queryFn: () =>
      answer(client.GET("/api/sites/{site_id}/plannable", { params: { path: { site_id: site } } })),
    enabled: site !== "",
  });

export const usePeople = () =>
  useQuery({ queryKey: keys.people, queryFn: () => answer(client.GET("/api/people")) });

export const useOwn = () => useQuery({ queryKey: keys.own, queryFn: () => answer(client.GET("/api/own")) });

export const useSignOffs = () =>
  useQuery({ queryKey: keys.signOffs, queryFn: () => answer(client.GET("/api/sign-offs")) });

export const useSignOff = (id: string) =>
  useQuery({
    queryKey: keys.signOff(id),
    queryFn: () =>
      answer(client.GET("/api/sign-offs/{sign_off_id}", { params: { path: { sign_off_id: id } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** What would be signed now: made when it is looked at. */
export const useDraft = (what: string, of: string) =>
  useQuery({
    queryKey: keys.draft(what, of),
    queryFn: () => answer(client.GET("/api/drafts/{what}/{of}", { params: { path: { what, of } } })),
    refetchOnWindowFocus: false,
  });

export type TimelineAsked = {
  kind?: Happened["kind"];
  by?: string;
  tester?: string;
  since?: string;
  until?: string;
};

/** A page after a page, the latest first. */
export const useTimeline = (scope: Scope, of: string, asked: TimelineAsked) =>
  useInfiniteQuery({
    queryKey: keys.timeline(scope, of, asked),
    queryFn: ({ pageParam }) =>
      answer(
        client.GET("/api/timeline/{scope}/{of}", {
          params: { path: { scope, of }, query: { ...asked, ...(pageParam && { before: pageParam }) } },
        }),
      ),
    initialPageParam: "",
    getNextPageParam: (last) => last.before,
  });

export const useTrends = (point: string | null) =>
  useQuery({
    queryKey: keys.trends(point ?? ""),
    queryFn: () =>
      answer(client.GET("/api/points/{point_id}/trends", { params: { path: { point_id: point ?? "" } } })),
    enabled: point !== null,
  });

export const useSearch = (typed: string) =>
  useQuery({
    queryKey: keys.search(typed),
    queryFn: () => answer(client.GET("/api/search", { params: { query: { q: typed } } })),
    enabled: typed !== "",
    placeholderData: (before) => before,
    staleTime: 10_000,
  });

export const useLeaning = (tester: string, since: string) =>
  useQuery({
    queryKey: keys.leaning(tester, since),
    queryFn: () =>
      answer(
        client.GET("/api/testers/{tester_id}/leaning", {
          params: { path: { tester_id: tester }, query: { since } },
        }),
      ),
    enabled: since !== "",
    placeholderData: (before) => before,
  });

export const equipmentAsked = queryOptions({
  queryKey: keys.equipment,
  queryFn: () => answer(client.GET("/api/equipment")),
});
export const useEquipment = () => useQuery(equipmentAsked);

export const outletsAsked = queryOptions({
  queryKey: keys.outlets,
  queryFn: () => answer(client.GET("/api/outlets")),
});
export const useOutlets = () => useQuery(outletsAsked);

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

export const sitesAsked = queryOptions({
  queryKey: keys.sites,
  queryFn: () => answer(client.GET("/api/sites")),
});
export const useSites = () => useQuery(sitesAsked);
/** Where work can be begun: in use, and with circuits of its own. */
export const useSitesInUse = () =>
  useQuery({ ...sitesAsked, select: (sites) => sites.filter((site) => !site.retired && !site.loose) });

export const siteAsked = (id: string | undefined) =>
  queryOptions({
    queryKey: keys.site(id),
    queryFn: () => answer(client.GET("/api/sites/{site_id}", { params: { path: { site_id: id ?? "" } } })),
    refetchInterval: ({ state }) => anyOld(pointsOf(state.data)) && TWO_ON_ONE_MS,
    enabled: id !== undefined,
  });
export const useSite = (id: string | undefined) => useQuery(siteAsked(id));

export const benchAsked = (id: string) =>
  queryOptions({
    queryKey: keys.bench(id),
    queryFn: () => answer(client.GET("/api/points/{point_id}/bench", { params: { path: { point_id: id } } })),
    refetchInterval: LOOK_AGAIN_MS,
  });
export const useBench = (id: string) => useQuery(benchAsked(id));
