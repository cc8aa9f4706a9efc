/** What waits to be sent: a record of one kind, as it was recorded. */

import type {
  Bench,
  Entry,
  EventEntry,
  HangIn,
  HuntEventIn,
  Reading,
  RoundEventIn,
  SheetEntry,
  VisitEventIn,
} from "../client";

/** `verdict_first`: what can still be may be asked for when the verdict is shown. */
export type ReadingBody = {
  entry: Entry;
  tester: string | null;
  supersedes: string | null;
  verdict_first?: boolean;
};
export type WithdrawalBody = { reading: string };
/** What happened to a proof of isolation, and what was in the hand. */
export type EventBody = {
  entry: EventEntry;
  tester: string | null;
  leads: string | null;
  adapters: string[];
};
/** `entry`: null takes back what it supersedes. */
export type SheetBody = { entry: SheetEntry | null; tester: string | null; supersedes: string | null };
export type RoundBody = Pick<RoundEventIn, "point" | "kind"> & { reason: string; tripped: boolean | null };
export type HuntBody = Required<Pick<HuntEventIn, "kind" | "entry">> & { tester?: string | null };
export type VisitBody = Required<Pick<VisitEventIn, "kind" | "entry">>;
/** Where a picture hangs. */
export type HungBody = Required<Pick<HangIn, "photo" | "on" | "of" | "note">>;
/** `image`: base 64 of a JPEG. */
export type PhotoBody = { image: string };

export type Bodies = {
  reading: ReadingBody;
  withdrawal: WithdrawalBody;
  "proof-event": EventBody;
  "sheet-entry": SheetBody;
  "round-event": RoundBody;
  "hunt-event": HuntBody;
  "visit-event": VisitBody;
  photo: PhotoBody;
  hung: HungBody;
  "photo-of-it": PhotoBody;
  "hunt-photo": PhotoBody;
};
export type Kind = keyof Bodies;

/**
 * `of`: the point it is recorded at, `where` by name. `said`: in words, for the list. `at`: when it was recorded.
 * `problem`: why the server refused it; empty while it waits. `typed`: to put back.
 * `held`: why the server takes nothing just now; it is tried again.
 * `arrived`: it is at the server, and not yet everywhere it is shown: until then it still counts as taken.
 */
export type Waiting = {
  id: string;
  kind: Kind;
  of: string;
  where: string;
  body: unknown;
  said: string;
  held?: string;
  at: string;
  problem: string;
  typed?: unknown;
  arrived?: true;
};

/** What of a point's record is not there yet counts as taken, so that the next pair is the next one. */
export const withWaiting = (readings: Bench["readings"], waiting: Waiting[]) => [
  ...readings,
  ...waiting
    .filter((one) => one.kind === "reading" && one.problem === "" && !readings.some((r) => r.id === one.id))
    .map((one) => ({ id: one.id, entry: (one.body as Reading).entry, status: "counts" }) as Reading),
];
