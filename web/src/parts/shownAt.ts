/** Where in the application a thing of the record is shown whole. */

const SHOWN: Record<string, (of: string) => string> = {
  point: (of) => `/bench/${of}`,
  sheet: (of) => `/dead-tests/${of}`,
  proof: (of) => `/prove-dead/${of}`,
  hunt: (of) => `/hunts/${of}`,
  round: (of) => `/rounds/${of}`,
  visit: (of) => `/record/visits/${of}`,
  tester: (of) => `/kit/${of}`,
  site: (of) => `/sites/${of}`,
  circuit: (of) => `/record/timeline/circuit/${of}`,
  files: () => "/record/files",
  "sign-off": (of) => `/record/sign-offs/${of}`,
};

export const shownAt = (place: string, of: string): string | null => SHOWN[place]?.(of) ?? null;

/** The line of time of the whole crew, whoever is signed in: its address needs an id, and any will do. */
const OF_THE_CREW = "/record/timeline/crew/00000000-0000-0000-0000-000000000000";
export const everything = (query = "") =>
  query ? `${OF_THE_CREW}?${new URLSearchParams(query)}` : OF_THE_CREW;
