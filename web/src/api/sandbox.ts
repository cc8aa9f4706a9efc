/**
 * Whether this page is inside a practice case. A case is a sandbox of its own: its address comes before every place and every
 * question to the server, and what this browser keeps of it is kept apart. One comes and goes by loading the page.
 */

const IN_A_CASE = /^\/practice\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})(?=\/|$)/;

export const caseIn = (pathname: string): string | null => IN_A_CASE.exec(pathname)?.[1] ?? null;

/** The case this page is in; null where what is done is real. */
export const CASE: string | null = caseIn(globalThis.location?.pathname ?? "/");

/** What comes before every address of this page. */
export const BASE = CASE === null ? "" : `/practice/${CASE}`;

/** What this browser keeps something under. */
export const keptAs = (name: string, inCase = CASE) =>
  inCase === null ? `even-probe${name}` : `even-probe case ${inCase}${name}`;

export const addressOfCase = (id: string) => `/practice/${id}/`;
export const PRACTICE = "/practice";
