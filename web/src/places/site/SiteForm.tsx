import { Button, Stack } from "@mantine/core";
import type { UseFormReturnType } from "@mantine/form";
import type { ReactNode } from "react";
import type { Refusal, Site } from "../../api/client";
import { useSiteWrite } from "../../api/queries";
import { Unplaced } from "../../parts/Unplaced";

type Values = Record<string, string>;

/** A form whose one write answers with the site; the server's problems land on the fields they name. */
export function SiteForm<V extends Values>(props: {
  form: UseFormReturnType<V>;
  write: (values: V) => Promise<Site>;
  done: () => void;
  action: string;
  children: ReactNode;
}) {
  const save = useSiteWrite(props.write);
  const refused = (error: Refusal) => {
    for (const { path, text } of error.problems) {
      if (path in props.form.values) props.form.setFieldError(path, text);
    }
  };
  return (
    <form
      onSubmit={props.form.onSubmit((values) =>
        save.mutate(values, { onSuccess: props.done, onError: refused }),
      )}
    >
      <Stack>
        {props.children}
        <Unplaced error={save.error} placed={Object.keys(props.form.values)} />
        <Button type="submit" loading={save.isPending}>
          {props.action}
        </Button>
      </Stack>
    </form>
  );
}
