import { NativeSelect, TextInput } from "@mantine/core";
import { Choice } from "../../parts/Choice";
import { sign } from "../../reading/entry";
import type { FormField, TypedTest } from "../../reading/tested";

/** The fields of a kind of dead test, but for the large number of a place that has one. */
export function TestFields(props: {
  fields: FormField[];
  typed: TypedTest;
  onType: (key: string, value: string) => void;
  /** What is wrong with a field, by its key. */
  wrong?: (key: string) => string | undefined;
}) {
  const { typed, onType } = props;
  const figure = (key: string, label: string, unit: string) => (
    <TextInput
      key={key}
      mt="sm"
      label={unit ? `${label}, ${sign(unit)}` : label}
      inputMode="decimal"
      value={typed[key] ?? ""}
      error={props.wrong?.(key.split(".")[0] ?? key)}
      onChange={(event) => onType(key, event.currentTarget.value)}
    />
  );
  return props.fields.map((f) => {
    if (f.entered === "choice")
      return (
        <Choice
          key={f.key}
          label={f.label}
          value={typed[f.key]}
          onChange={(value) => onType(f.key, value)}
          data={f.answers.map(({ value, label }) => ({ value: String(value), label }))}
        />
      );
    if (f.entered === "pairs")
      return Array.from({ length: f.rows }, (_, row) =>
        f.labels.map((label, column) =>
          figure(`${f.key}.${row}.${column}`, `${NTH[row] ?? row + 1}, ${label}`, f.unit),
        ),
      );
    return figure(f.key, f.label, f.unit);
  });
}

const NTH = ["First", "Second", "Third"];

/** What the display shows it in, where it changes its unit by itself. */
export function UnitChoice(props: {
  field: FormField;
  typed: TypedTest;
  onType: (key: string, value: string) => void;
}) {
  const { field } = props;
  if (field.units.length < 2) return null;
  const key = `${field.key}.unit`;
  return (
    <NativeSelect
      aria-label="Unit on the display"
      value={props.typed[key] ?? field.unit}
      onChange={(event) => props.onType(key, event.currentTarget.value)}
      data={field.units.map((unit) => ({ value: unit, label: sign(unit) }))}
    />
  );
}
