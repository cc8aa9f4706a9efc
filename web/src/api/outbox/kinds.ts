/** What can wait to be sent: how each kind is told to the server, what its answer shows, and where it was recorded. */

import client, { answer, asTyped, type Bench, type Entry, type Reading } from "../client";
import { BENCH, type RecordOf } from "../records";
import type { Waiting } from "./outbox";

export type Kind = "reading" | "withdrawal";

/** A reading as it is sent: `taken_at` by the clock of this device, when it was recorded. */
export type ReadingBody = {
  entry: Entry;
  tester: string | null;
  supersedes: string | null;
  taken_at: string;
};
export type WithdrawalBody = { reading: string };

type Sent<R extends object> = {
  send: (one: Waiting, signal: AbortSignal) => Promise<R>;
  shows: RecordOf<R>;
  place: (one: Waiting) => string;
};

const AT_A_POINT = { shows: BENCH, place: (one: Waiting) => `/bench/${one.of}` };

export const KINDS: Record<Kind, Sent<Bench>> = {
  reading: {
    ...AT_A_POINT,
    send: (one, signal) => {
      const body = one.body as ReadingBody;
      return answer(
        client.PUT("/api/points/{point_id}/readings/{reading_id}", {
          params: { path: { point_id: one.of, reading_id: one.id } },
          body: { ...body, entry: asTyped<Reading["entry"]>(body.entry) },
          signal,
        }),
      );
    },
  },
  withdrawal: {
    ...AT_A_POINT,
    send: (one, signal) =>
      answer(
        client.PUT("/api/points/{point_id}/withdrawals/{withdrawal_id}", {
          params: { path: { point_id: one.of, withdrawal_id: one.id } },
          body: one.body as WithdrawalBody,
          signal,
        }),
      ),
  },
};
