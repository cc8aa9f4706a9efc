/** The places in the order of the work; on a phone five of them, the one in hand always among them. */

const PLACES = [
  { id: "today", to: "/today", name: "Today" },
  { id: "sites", to: "/sites", name: "Site" },
  { id: "prove-dead", to: "/prove-dead", name: "Prove dead" },
  { id: "dead-tests", to: "/dead-tests", name: "Dead tests" },
  { id: "bench", to: "/bench", name: "Bench" },
  { id: "rounds", to: "/rounds", name: "Rounds" },
  { id: "hunts", to: "/hunts", name: "Hunt" },
  { id: "plug-in", to: "/plug-in", name: "Plug in" },
  { id: "record", to: "/record", name: "Record" },
  { id: "kit", to: "/kit", name: "Kit" },
  { id: "practice", to: "/practice", name: "Practice" },
] as const;

/** `folded`: on a phone it is under More. */
export type Place = { id: (typeof PLACES)[number]["id"]; to: string; name: string; folded: boolean };

const ON_A_PHONE = 5;

/** `bench`: the point in hand, if there is one. */
export function onTheRail(pathname: string, bench: string | null): Place[] {
  const places = PLACES.filter((place) => place.id !== "bench" || bench !== null);
  const here = places.findIndex((place) => pathname.startsWith(`/${place.id}`));
  const last = here < ON_A_PHONE ? ON_A_PHONE : ON_A_PHONE - 1;
  return places.map((place, i) => ({
    ...place,
    to: place.id === "bench" ? `/bench/${bench}` : place.to,
    folded: i >= last && i !== here,
  }));
}

const PROVE_DEAD: Place = { id: "prove-dead", to: "/prove-dead", name: "Prove dead", folded: false };

const BENCH = { id: "bench", name: "Bench", folded: false } as const;

/** Inside a practice case: the places that one practises in, the first of them where it begins. */
export function inACase(here: { point: { id: string }; hunt: string | null; outlets: unknown[] }): Place[] {
  if (here.hunt !== null)
    return [{ id: "hunts", to: `/hunts/${here.hunt}`, name: "Hunt", folded: false }, PROVE_DEAD];
  const bench = { ...BENCH, to: `/bench/${here.point.id}` };
  if (here.outlets.length > 0)
    return [{ id: "rounds", to: "/rounds", name: "Rounds", folded: false }, bench, PROVE_DEAD];
  return [bench, PROVE_DEAD, { id: "dead-tests", to: "/dead-tests", name: "Dead tests", folded: false }];
}

/** The one site they read. */
export const forAGuest = (site: string): Place[] => [
  { id: "sites", to: `/sites/${site}`, name: "Site", folded: false },
];
