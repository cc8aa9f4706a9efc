/** Files sent to be looked at, and to be brought in. */

import client, {
  answer,
  type BroughtFile,
  type RecordLookedAt,
  type RowsHow,
  type RowsLookedAt,
} from "../../api/client";

export type What = "record" | "readings" | "dead-tests" | "circuits" | "kit";
export type TableName = Exclude<What, "record">;

/** What is asked for with a file: as a form, for a file is no JSON. */
const asForm =
  (file: File, more: Record<string, string> = {}) =>
  () => {
    const form = new FormData();
    form.append("file", file);
    for (const [name, value] of Object.entries(more)) form.append(name, value);
    return form;
  };
const NO_BODY = {} as never;

export const lookAtRecord = (file: File): Promise<RecordLookedAt> =>
  answer(client.POST("/api/brought/record/look", { body: NO_BODY, bodySerializer: asForm(file) }));

export const bringRecordIn = (file: File): Promise<BroughtFile> =>
  answer(client.POST("/api/brought/record", { body: NO_BODY, bodySerializer: asForm(file) }));

export const lookAtRows = (table: TableName, file: File, how: RowsHow): Promise<RowsLookedAt> =>
  answer(
    client.POST("/api/brought/rows/{table}/look", {
      params: { path: { table } },
      body: NO_BODY,
      bodySerializer: asForm(file, { how: JSON.stringify(how) }),
    }),
  );

export const bringRowsIn = (
  table: TableName,
  file: File,
  how: RowsHow,
  sha256: string,
): Promise<RowsLookedAt> =>
  answer(
    client.POST("/api/brought/rows/{table}", {
      params: { path: { table } },
      body: NO_BODY,
      bodySerializer: asForm(file, { how: JSON.stringify(how), sha256 }),
    }),
  );
