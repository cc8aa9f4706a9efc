import { NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import type { RowsHow, RowsLookedAt } from "../../api/client";
import { Choice } from "../../parts/Choice";
import classes from "./Files.module.css";
import { left, withColumn } from "./matched";

/** Which column of the file is which, and how it is written; remembered for the next file with such a header. */
export function MatchColumns(props: { looked: RowsLookedAt; change: (how: Partial<RowsHow>) => void }) {
  const { looked, change } = props;
  const said = { columns: looked.columns, fixed: looked.fixed, decimal: looked.decimal };
  const settled = looked.missing.length === 0;
  const [open, show] = useState(!settled);
  return (
    <>
      {!settled && (
        <p role="alert" className={classes.wrong}>
          Every row needs {looked.missing.join(" and ")}: say which column it is, or what it is in every row.
        </p>
      )}
      <details className={classes.match} open={open} onToggle={(event) => show(event.currentTarget.open)}>
        <summary>
          {looked.remembered
            ? "Columns matched as your crew did before"
            : `${Object.keys(looked.columns).length} of ${looked.header.length} columns matched`}
        </summary>
        <ul className={classes.columnsOf}>
          {looked.header.filter(Boolean).map((name) => (
            <li key={name}>
              <NativeSelect
                label={name}
                value={looked.columns[name]?.column ?? ""}
                onChange={(event) =>
                  change({ ...said, columns: withColumn(looked.columns, name, event.currentTarget.value) })
                }
                data={[
                  { value: "", label: "Leave out" },
                  ...left(looked, name).map((header) => ({ value: header, label: header })),
                ]}
              />
              {looked.columns[name]?.unit && <span>in {looked.columns[name].unit}</span>}
            </li>
          ))}
        </ul>
        <SameInEveryRow looked={looked} change={(fixed) => change({ ...said, fixed })} />
        <Choice
          label="Decimal mark"
          value={looked.decimal === "," ? "," : "."}
          onChange={(decimal) => change({ ...said, decimal })}
          data={[
            { value: ".", label: "Point: 119.8" },
            { value: ",", label: "Comma: 119,8" },
          ]}
        />
        <p className="quiet">Times that say no offset are taken as of {looked.zone}.</p>
      </details>
    </>
  );
}

/** What no column says because it is the same for all: a quantity, a tester. */
function SameInEveryRow(props: { looked: RowsLookedAt; change: (fixed: Record<string, string>) => void }) {
  const { looked, change } = props;
  const [column, setColumn] = useState(looked.missing[0] ?? "");
  const [value, setValue] = useState("");
  const keep = () => {
    if (column && value.trim()) change({ ...looked.fixed, [column]: value.trim() });
    setValue("");
  };
  return (
    <div className={classes.fixed}>
      {Object.entries(looked.fixed).map(([name, said]) => (
        <p key={name}>
          {name}: <strong>{said}</strong> in every row{" "}
          <button
            type="button"
            className={classes.plain}
            onClick={() => {
              const { [name]: _gone, ...rest } = looked.fixed;
              change(rest);
            }}
          >
            Take back
          </button>
        </p>
      ))}
      <NativeSelect
        label="The same in every row"
        value={column}
        onChange={(event) => setColumn(event.currentTarget.value)}
        data={["", ...left(looked, "")]}
      />
      <TextInput
        label="What it is"
        value={value}
        onChange={(event) => setValue(event.currentTarget.value)}
        onBlur={keep}
        onKeyDown={(event) => event.key === "Enter" && keep()}
      />
    </div>
  );
}
