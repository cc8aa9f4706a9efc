/** What the person may be looking for, of all that is known on this device. */

import type { OnRecord, ProofLine, Site, Tester } from "../api/client";
import { everything, shownAt } from "./shownAt";

export type Found = { to: string; name: string; what: string };

const MOST = 12;

/** Every place with a name, `what` being where it is. */
export function named(sites: Site[], testers: Tester[], proofs: ProofLine[]): Found[] {
  const ofSites = sites.flatMap((site) => [
    { to: `/sites/${site.id}`, name: site.name, what: "Site" },
    ...site.supplies
      .flatMap((supply) => supply.boards)
      .flatMap((board) =>
        board.circuits.flatMap((circuit) => [
          {
            to: `/sites/${site.id}?circuit=${circuit.id}`,
            name: circuit.name,
            what: `${board.name}, ${site.name}`,
          },
          ...circuit.points.map((point) => ({
            to: `/bench/${point.id}`,
            name: point.name,
            what: `${circuit.name}, ${site.name}`,
          })),
        ]),
      ),
  ]);
  return [
    ...ofSites,
    ...proofs.map((proof) => ({
      to: `/prove-dead/${proof.id}`,
      name: proof.name,
      what: `Proof, ${proof.site}`,
    })),
    ...testers.map((tester) => ({ to: `/kit/${tester.id}`, name: tester.label, what: "Tester" })),
  ];
}

/** Those in which every word typed stands: names that begin with it first, then the points last measured, `last` first. */
export function matching(all: Found[], typed: string, last: string[]): Found[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const places = last.map((point) => `/bench/${point}`);
  const recency = ({ to }: Found) => (places.includes(to) ? places.length - places.indexOf(to) : 0);
  if (words.length === 0) return all.filter(recency).sort((a, b) => recency(b) - recency(a));
  const has = ({ name, what }: Found) =>
    words.every((word) => `${name} ${what}`.toLowerCase().includes(word));
  const begins = ({ name }: Found) => name.toLowerCase().startsWith(words[0] ?? "");
  return all
    .filter(has)
    .sort((a, b) => Number(begins(b)) - Number(begins(a)) || recency(b) - recency(a))
    .slice(0, MOST);
}

/** What this device knows first, then what else the record has. */
export function beside(here: Found[], onRecord: OnRecord[]): Found[] {
  const known = new Set(here.map(({ to }) => to.replace(/\?.*/, "")));
  const more = onRecord.flatMap(({ place, of, name, what, query }) => {
    const to = of === null ? everything(query) : shownAt(place, of);
    return to && !known.has(to) ? [{ to, name, what }] : [];
  });
  return [...here, ...more];
}
