import type { Sheet, SheetEntry } from "../../api/client";
import { useKeep } from "../../api/outbox/useOutbox";
import type { SheetBody } from "../../api/outbox/waiting";

type Beside = {
  tester?: string | null | undefined;
  supersedes?: string | null | undefined;
  typed?: unknown;
};

/** What waits of a sheet, as far as its forms show it. */
type Unsent = {
  id: string;
  type: SheetEntry["type"];
  line?: string;
  item?: string;
  good?: boolean;
  photo?: string;
  what?: string;
};

/** Puts things down on a sheet. `unsent`: what of it waits, in order, and counts as put down. */
export function usePutDown(sheet: Sheet) {
  const { keep, waiting } = useKeep("sheet-entry", sheet.id, sheet.circuit.name);
  const { keep: keepPhoto } = useKeep("photo", sheet.id, sheet.circuit.name);
  const put = (
    entry: SheetEntry | null,
    said: string,
    { tester = null, supersedes = null, typed }: Beside = {},
  ) => keep({ entry, tester, supersedes }, said, typed);
  const unsent = waiting.taken.flatMap(({ id, kind, body }) => {
    const { entry } = body as SheetBody;
    const known = kind !== "sheet-entry" || sheet.entries.some((there) => there.id === id);
    return known || entry === null ? [] : [{ ...entry, id } as Unsent];
  });
  return { put, keepPhoto, waiting, unsent };
}

export type PutDown = ReturnType<typeof usePutDown>;
