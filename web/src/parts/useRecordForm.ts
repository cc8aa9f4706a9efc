/** A form whose one write is a record: what is wrong stands at the field it names, what is half typed comes back. */

import { useForm } from "@mantine/form";
import { useEffect, useState } from "react";
import { useLocation } from "react-router";
import type { Refusal } from "../api/client";
import { draftOf, keepDraft } from "../api/drafts";
import type { RecordOf } from "../api/records";
import { useRecord } from "../api/useRecord";

/** By the server's name, the field of the form that shows it, where it has another name. */
type Names = Record<string, string>;

/** `send` is given the form's values, and whatever a button says beside them. */
export function useRecordForm<V extends Record<string, unknown>, R extends object, Beside = void>(
  initialValues: V,
  of: RecordOf<R>,
  send: (values: V, beside: Beside) => Promise<R>,
  names: Names = {},
) {
  const place = `${useLocation().pathname} ${JSON.stringify(initialValues)}`;
  const [begun] = useState(() => draftOf<V>(place));
  const form = useForm<V>({
    initialValues,
    onValuesChange: (values) => keepDraft(place, values),
  });
  useEffect(() => {
    if (begun) form.setValues(begun);
  }, [begun, form.setValues]);
  const save = useRecord(of, ({ values, beside }: { values: V; beside: Beside }) => send(values, beside));
  const fieldOf = (path: string) => {
    const plain = path.replace(/\[.*/, "");
    return names[plain] ?? plain;
  };
  const atItsField = (error: Refusal) => {
    for (const { path, text } of error.problems)
      if (fieldOf(path) in form.values) form.setFieldError(fieldOf(path), text);
  };
  const write = (beside: Beside, done: (made: R) => void) =>
    save.mutate(
      { values: form.values, beside },
      {
        onSuccess: (made) => {
          keepDraft(place, null);
          done(made);
        },
        onError: atItsField,
      },
    );
  return { form, save, write, placed: [...Object.keys(initialValues), ...Object.keys(names)] };
}
