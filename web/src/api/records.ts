/** What each sort of record shows of its answer at once when it was written, and what else is then asked for again. */

import type { QueryClient, QueryKey } from "@tanstack/react-query";
import type { Bench, CaseHere, Hunt, Proof, Round, Rules, Sheet, Site, Visit } from "./client";
import { keys } from "./keys";
import { benchAsked } from "./queries";

/**
 * `shows`: where the answer is kept; `clocked`: with when it was asked for, for what runs by the clock. `rest`: the whole
 * asked for, where the answer is not all of it.
 */
export type RecordOf<R> = {
  shows?: (answer: R) => QueryKey;
  rest?: (answer: R) => ((queries: QueryClient) => Promise<unknown>) | null;
  clocked?: true;
  changes: (answer: R) => readonly QueryKey[];
};

export const SITE: RecordOf<Site> = { shows: (site) => keys.site(site.id), changes: () => [keys.sites] };

export const BENCH: RecordOf<Bench> = {
  shows: (bench) => keys.bench(bench.id),
  rest: (bench) =>
    bench.to_follow ? (queries) => queries.fetchQuery({ ...benchAsked(bench.id), staleTime: 0 }) : null,
  changes: (bench) => [
    keys.site(bench.site.id),
    keys.anyRound,
    keys.rounds,
    keys.anyPlugIn,
    keys.anyVisit,
    keys.today,
  ],
};

/** What the readings allow is covered until it is asked for, or the case is over. */
export const CASE_HERE: RecordOf<CaseHere> = {
  shows: () => keys.caseHere,
  changes: ({ shown, over }) => (shown || over ? [keys.anyBench] : []),
};

/** A case begun: whoever goes into it leaves this page for its own at once, and asks again on coming back. */
export const BEGUN: RecordOf<CaseHere> = { changes: () => [] };

export const PEOPLE: RecordOf<object> = { shows: () => keys.people, changes: () => [] };

/** A link stands on the list of people. */
export const ONE_TIME_LINK: RecordOf<object> = { changes: () => [keys.people] };

export const OWN: RecordOf<object> = { shows: () => keys.own, changes: () => [] };

export const KIT: RecordOf<object> = { changes: () => [keys.testers, keys.parts, keys.outOfUse, keys.today] };

export const LINKS: RecordOf<object> = { shows: () => keys.links, changes: () => [] };

export const PROOF: RecordOf<Proof> = {
  shows: (proof) => keys.proof(proof.id),
  clocked: true,
  changes: () => [keys.proofs, keys.anySheet, keys.anyVisit, keys.today, keys.caseHere],
};

export const RULES: RecordOf<Rules> = { shows: () => keys.rules, changes: () => [] };

/** What dead tests decide elsewhere is asked for again, and what is just typed, for nulled leads are in it. */
export const SHEET: RecordOf<Sheet> = {
  shows: (sheet) => keys.sheet(sheet.id),
  clocked: true,
  changes: (sheet) => [
    keys.judgedOn(sheet.id),
    keys.sheets,
    keys.anyBench,
    keys.anySite,
    keys.anyVisit,
    keys.proofs,
  ],
};

export const PHOTO: RecordOf<object> = { changes: () => [] };

export const HUNG: RecordOf<object> = { changes: () => [keys.anyTimeline] };

/** What a tester showed may mean something else everywhere. */
export const FAULT: RecordOf<object> = { changes: () => [[]] };

/** What it recorded shows elsewhere too. */
export const ROUND: RecordOf<Round> = {
  shows: (round) => keys.round(round.id),
  changes: () => [keys.rounds, keys.anyBench, keys.anySite, keys.today],
};

export const HUNT: RecordOf<Hunt> = {
  shows: (hunt) => keys.hunt(hunt.id),
  changes: () => [keys.hunts, keys.today],
};

export const VISIT: RecordOf<Visit> = {
  shows: (visit) => keys.visit(visit.id),
  changes: () => [keys.visits, keys.today],
};

export const SIGN_OFF: RecordOf<{ id: string }> = {
  shows: (signed) => keys.signOff(signed.id),
  changes: () => [keys.signOffs],
};

export const EQUIPMENT: RecordOf<object> = { changes: () => [keys.equipment] };

export const OUTLET: RecordOf<object> = { changes: () => [keys.outlets, keys.sites] };

/** A whole site at once: nothing that was shown is sure to be as it was. */
export const SURVEY: RecordOf<object> = { changes: () => [[]] };
