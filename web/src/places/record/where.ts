/** Where in the application a step of a visit is done, and what is open there closed. */

import type { VisitStep } from "../../api/client";

const WHERE: Record<VisitStep["place"], (of: string, site: string) => string> = {
  proof: (of) => `/prove-dead/${of}`,
  "new-proof": (of, site) => `/prove-dead/new?site=${site}&circuit=${of}`,
  sheet: (of) => `/dead-tests/${of}`,
  "new-sheet": (of) => `/dead-tests/new?circuit=${of}`,
  point: (of) => `/bench/${of}`,
  hunt: (of) => `/hunts/${of}`,
  round: (of) => `/rounds/${of}`,
  visit: (of) => `/record/visits/${of}`,
  circuit: (of, site) => `/sites/${site}?circuit=${of}`,
};

export const whereIs = (at: { place: VisitStep["place"]; of: string }, site: string) =>
  WHERE[at.place](at.of, site);
