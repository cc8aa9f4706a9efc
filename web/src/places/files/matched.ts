/** Which column of a file is which of a table, as somebody changes it. */

import type { RowsLookedAt } from "../../api/client";

type Columns = RowsLookedAt["columns"];

/** Columns of the table that are still to be had for one of the file; its own stays among them. */
export function left(looked: RowsLookedAt, name: string): string[] {
  const taken = new Set(
    Object.entries(looked.columns)
      .filter(([other]) => other !== name)
      .map(([, one]) => one.column),
  );
  return looked.can.filter((header) => !taken.has(header) && !(header in looked.fixed));
}

/** The same with one column of the file being another, or none. */
export function withColumn(columns: Columns, name: string, column: string): Columns {
  const { [name]: before, ...rest } = columns;
  if (!column) return rest;
  return { ...rest, [name]: before?.column === column ? before : { column, unit: "" } };
}
