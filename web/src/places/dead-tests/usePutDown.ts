import client, { answer, asTyped, type SheetEntry, type SheetEntrySent } from "../../api/client";
import { useSheetWrite } from "../../api/queries";
import { useSameId } from "../../parts/useSameId";

type Putting = { entry: SheetEntry | null; tester?: string | null; supersedes?: string };

/** Puts things down on a sheet. The same again after a failure is the same entry, not a second. */
export function usePutDown(sheetId: string) {
  const { idFor, written } = useSameId();
  return useSheetWrite(async ({ entry, tester = null, supersedes }: Putting) => {
    const body = { entry, tester, supersedes: supersedes ?? null };
    const after = await answer(
      client.PUT("/api/sheets/{sheet_id}/entries/{entry_id}", {
        params: { path: { sheet_id: sheetId, entry_id: idFor(body) } },
        body: { ...body, entry: entry && asTyped<SheetEntrySent>(entry) },
      }),
    );
    written();
    return after;
  });
}

export type PutDown = ReturnType<typeof usePutDown>;
