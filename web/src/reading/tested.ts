/** A dead test as its form has it, and the entry that what was typed makes: fields come from the kind of test. */

import { theReference } from "../api/reference";
import type { components } from "../api/schema";
import { typedNumber } from "./typedNumber";

export type FormField = components["schemas"]["FieldRow"];
export type Test = Record<string, unknown>;
/** What was typed or picked, by the key of its field; of pairs by key, row and column, as `pairs.0.1`. */
export type TypedTest = Record<string, string>;

export const kindOf = (id: string) => theReference().dead_tests.find((kind) => kind.id === id);

export const fieldsOf = (id: string, leavesOut: string[] = []): FormField[] =>
  (kindOf(id)?.fields ?? []).filter((f) => !leavesOut.includes(f.key));

/** The figure a form is about: the first that is read off a display. */
export const mainFigure = (fields: FormField[]): FormField | undefined =>
  fields.find((f) => f.entered === "figure" && !f.printed);

export const isOverRange = (typed: string | undefined) => /^ol$/i.test(typed?.trim() ?? "");

/** What the line knows already is picked, as the test voltage. */
export const presetTyped = (fields: FormField[], preset: Test): TypedTest =>
  Object.fromEntries(
    fields.filter((f) => f.preset && preset[f.key] != null).map((f) => [f.key, String(preset[f.key])]),
  );

/** The entry so far; nothing where something printed is missing, or nothing was read or picked. */
export function testOf(fields: FormField[], typed: TypedTest): Test | null {
  const said = (key: string) => typed[key]?.trim() ?? "";
  if (fields.some((f) => f.printed && said(f.key) === "")) return null;
  const test: Test = {};
  let anything = false;
  for (const f of fields) {
    const found =
      f.entered === "pairs" ? pairs(f, said) : f.entered === "choice" ? choice(f, said) : figure(f, said);
    Object.assign(test, found);
    if (Object.keys(found).length > 0 && !f.preset && !f.printed) anything = true;
  }
  return anything ? test : null;
}

function figure(f: FormField, said: (key: string) => string): Test {
  const text = said(f.key);
  if (text === "") return {};
  if (f.over_range && isOverRange(text)) return { [f.over_range]: true };
  const more = f.at_least ? text.match(/^>\s*(.+)$/)?.[1] : undefined;
  if (more !== undefined) return { [f.at_least]: typedNumber(more) };
  const unit = said(`${f.key}.unit`);
  return unit === "" || unit === f.unit
    ? { [f.key]: typedNumber(text) }
    : { [f.key]: typedNumber(text), unit };
}

function choice(f: FormField, said: (key: string) => string): Test {
  const picked = f.answers.find((answer) => String(answer.value) === said(f.key));
  return picked ? { [f.key]: picked.value } : {};
}

function pairs(f: FormField, said: (key: string) => string): Test {
  const rows = Array.from({ length: f.rows }, (_, row) =>
    [0, 1].map((column) => said(`${f.key}.${row}.${column}`)),
  );
  const whole = rows.filter((row) => row.every((text) => text !== ""));
  return whole.length ? { [f.key]: whole.map((row) => row.map(typedNumber)) } : {};
}
