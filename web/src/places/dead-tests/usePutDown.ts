import { useRef } from "react";
import client, { answer } from "../../api/client";
import { useSheetWrite } from "../../api/queries";

export type Entry = { type: string; [key: string]: unknown };
type Putting = { entry: Entry | null; tester?: string | null; supersedes?: string };

/** Puts things down on a sheet. The same again after a failure is the same entry, not a second. */
export function usePutDown(sheetId: string) {
  const attempt = useRef<{ content: string; id: string } | null>(null);
  return useSheetWrite(async ({ entry, tester = null, supersedes }: Putting) => {
    const body = { entry, tester, supersedes: supersedes ?? null };
    const content = JSON.stringify(body);
    if (attempt.current?.content !== content) attempt.current = { content, id: crypto.randomUUID() };
    const after = await answer(
      client.PUT("/api/sheets/{sheet_id}/entries/{entry_id}", {
        params: { path: { sheet_id: sheetId, entry_id: attempt.current.id } },
        body,
      }),
    );
    attempt.current = null;
    return after;
  });
}

export type PutDown = ReturnType<typeof usePutDown>;
