import { expect, test } from "vitest";
import type { RowsLookedAt } from "../../api/client";
import { left, withColumn } from "./matched";

const columns = { Volts: { column: "value [V]", unit: "mV" }, Outlet: { column: "point", unit: "" } };
const can = ["point", "value [V]", "quantity", "from"];
const looked = { columns, can, fixed: { quantity: "voltage" } } as unknown as RowsLookedAt;

test("a column is to be had once, its own stays, and what is fixed is none", () => {
  expect(left(looked, "Volts")).toEqual(["value [V]", "from"]);
  expect(left(looked, "")).toEqual(["from"]);
});

test("the unit of a header stays while its column does", () => {
  expect(withColumn(columns, "Volts", "value [V]")).toEqual(columns);
  expect(withColumn(columns, "Volts", "from")).toEqual({
    Outlet: columns.Outlet,
    Volts: { column: "from", unit: "" },
  });
  expect(withColumn(columns, "Volts", "")).toEqual({ Outlet: columns.Outlet });
});
