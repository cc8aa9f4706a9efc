/** The places in the order of the work; on a phone five of them, the one in hand always among them. */

const PLACES = [
  { id: "today", to: "/today", name: "Today" },
  { id: "sites", to: "/sites", name: "Site" },
  { id: "prove-dead", to: "/prove-dead", name: "Prove dead" },
  { id: "dead-tests", to: "/dead-tests", name: "Dead tests" },
  { id: "bench", to: "/bench", name: "Bench" },
  { id: "rounds", to: "/rounds", name: "Rounds" },
  { id: "plug-in", to: "/plug-in", name: "Plug in" },
  { id: "kit", to: "/kit", name: "Kit" },
] as const;

export type Place = { id: (typeof PLACES)[number]["id"]; to: string; name: string };

const ON_A_PHONE = 5;

/** `bench`: the point in hand, if there is one. `more`: what a phone has no room for. */
export function onTheRail(pathname: string, bench: string | null): { first: Place[]; more: Place[] } {
  const places: Place[] = PLACES.filter((place) => place.id !== "bench" || bench !== null).map((place) =>
    place.id === "bench" ? { ...place, to: `/bench/${bench}` } : place,
  );
  const first = places.slice(0, ON_A_PHONE);
  const here = places.find((place) => pathname.startsWith(`/${place.id}`));
  if (here && !first.includes(here)) first.splice(ON_A_PHONE - 1, 1, here);
  return { first, more: places.filter((place) => !first.includes(place)) };
}
