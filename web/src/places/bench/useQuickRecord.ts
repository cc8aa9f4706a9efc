import client, { answer } from "../../api/client";
import { useBenchWrite } from "../../api/queries";
import { useSameId } from "../../parts/useSameId";
import type { Entry } from "./entry";

type Recorded = { entry: Entry; supersedes: string | null };

/** Records readings of a point. */
export function useQuickRecord(pointId: string, tester: string | null) {
  const { idFor, written } = useSameId();
  return useBenchWrite(async ({ entry, supersedes }: Recorded) => {
    const reading_id = idFor([pointId, tester, entry, supersedes]);
    const bench = await answer(
      client.PUT("/api/points/{point_id}/readings/{reading_id}", {
        params: { path: { point_id: pointId, reading_id } },
        body: { entry, tester, supersedes, taken_at: new Date().toISOString() },
      }),
    );
    written();
    return bench;
  });
}
