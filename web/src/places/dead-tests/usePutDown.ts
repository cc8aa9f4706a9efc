import client, { answer, asTyped, type SheetEntry, type SheetEntrySent } from "../../api/client";
import { SHEET } from "../../api/records";
import { useRecord } from "../../api/useRecord";

type Putting = { entry: SheetEntry | null; tester?: string | null; supersedes?: string };

/** Puts things down on a sheet. The same again after a failure is the same entry, not a second. */
export function usePutDown(sheetId: string) {
  return useRecord(SHEET, ({ entry, tester = null, supersedes }: Putting, { id }) =>
    answer(
      client.PUT("/api/sheets/{sheet_id}/entries/{entry_id}", {
        params: { path: { sheet_id: sheetId, entry_id: id } },
        body: { entry: entry && asTyped<SheetEntrySent>(entry), tester, supersedes: supersedes ?? null },
      }),
    ),
  );
}

export type PutDown = ReturnType<typeof usePutDown>;
