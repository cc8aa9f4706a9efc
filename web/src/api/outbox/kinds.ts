/** What can wait to be sent: how each kind is told to the server, what its answer shows, and where it was recorded. */

import client, { answer, asTyped, type Happening, type Reading, type SheetEntrySent } from "../client";
import { byServerClock } from "../clock";
import { BENCH, HUNG, HUNT, PHOTO, PROOF, type RecordOf, ROUND, SHEET, VISIT } from "../records";
import type {
  EventBody,
  HungBody,
  HuntBody,
  Kind,
  PhotoBody,
  ReadingBody,
  RoundBody,
  SheetBody,
  VisitBody,
  Waiting,
  WithdrawalBody,
} from "./waiting";

type Sent = {
  send: (one: Waiting, signal: AbortSignal) => Promise<object>;
  shows: RecordOf<object>;
  place: (one: Waiting) => string;
};

/** By the server's clock, as far as it was heard. */
const times = (one: Waiting) => ({
  at: byServerClock(one.at),
  sent_at: byServerClock(new Date().toISOString()),
});

function row<R extends object>(
  shows: RecordOf<R>,
  place: string,
  send: (one: Waiting, signal: AbortSignal) => Promise<R>,
): Sent {
  return { shows: shows as RecordOf<object>, place: (one) => `/${place}/${one.of}`, send };
}

/** Of any thing of the record: shown nowhere of its own. */
const onRecord = (shows: RecordOf<object>, send: Sent["send"]): Sent => ({
  shows,
  place: () => "/record",
  send,
});

const sendPhoto = (one: Waiting, signal: AbortSignal) =>
  answer(
    client.PUT("/api/photos/{photo_id}", {
      params: { path: { photo_id: one.id } },
      body: { ...(one.body as PhotoBody), ...times(one) },
      signal,
    }),
  );

export const KINDS: Record<Kind, Sent> = {
  reading: row(BENCH, "bench", (one, signal) => {
    const body = one.body as ReadingBody;
    const { at, sent_at } = times(one);
    return answer(
      client.PUT("/api/points/{point_id}/readings/{reading_id}", {
        params: { path: { point_id: one.of, reading_id: one.id } },
        body: {
          ...body,
          verdict_first: body.verdict_first ?? false,
          taken_at: at,
          sent_at,
          entry: asTyped<Reading["entry"]>(body.entry),
        },
        signal,
      }),
    );
  }),
  withdrawal: row(BENCH, "bench", (one, signal) =>
    answer(
      client.PUT("/api/points/{point_id}/withdrawals/{withdrawal_id}", {
        params: { path: { point_id: one.of, withdrawal_id: one.id } },
        body: one.body as WithdrawalBody,
        signal,
      }),
    ),
  ),
  "proof-event": row(PROOF, "prove-dead", (one, signal) => {
    const { entry, ...hand } = one.body as EventBody;
    return answer(
      client.PUT("/api/proofs/{proof_id}/events/{event_id}", {
        params: { path: { proof_id: one.of, event_id: one.id } },
        body: { entry: asTyped<Happening>(entry), ...hand, ...times(one) },
        signal,
      }),
    );
  }),
  "sheet-entry": row(SHEET, "dead-tests", (one, signal) => {
    const { entry, ...beside } = one.body as SheetBody;
    return answer(
      client.PUT("/api/sheets/{sheet_id}/entries/{entry_id}", {
        params: { path: { sheet_id: one.of, entry_id: one.id } },
        body: { entry: entry && asTyped<SheetEntrySent>(entry), ...beside, ...times(one) },
        signal,
      }),
    );
  }),
  "round-event": row(ROUND, "rounds", (one, signal) =>
    answer(
      client.PUT("/api/rounds/{round_id}/events/{event_id}", {
        params: { path: { round_id: one.of, event_id: one.id } },
        body: { ...(one.body as RoundBody), ...times(one) },
        signal,
      }),
    ),
  ),
  "hunt-event": row(HUNT, "hunts", (one, signal) =>
    answer(
      client.PUT("/api/hunts/{hunt_id}/events/{event_id}", {
        params: { path: { hunt_id: one.of, event_id: one.id } },
        body: { ...(one.body as HuntBody), ...times(one) },
        signal,
      }),
    ),
  ),
  "visit-event": row(VISIT, "record/visits", (one, signal) =>
    answer(
      client.PUT("/api/visits/{visit_id}/events/{event_id}", {
        params: { path: { visit_id: one.of, event_id: one.id } },
        body: { ...(one.body as VisitBody), ...times(one) },
        signal,
      }),
    ),
  ),
  hung: onRecord(HUNG, (one, signal) =>
    answer(
      client.PUT("/api/hung/{hung_id}", {
        params: { path: { hung_id: one.id } },
        body: { ...(one.body as HungBody), ...times(one) },
        signal,
      }),
    ),
  ),
  "photo-of-it": onRecord(PHOTO, sendPhoto),
  photo: row(PHOTO, "dead-tests", sendPhoto),
  "hunt-photo": row(PHOTO, "hunts", sendPhoto),
};
