import { Button, Stack, Text } from "@mantine/core";
import type { UseFormReturnType } from "@mantine/form";
import type { ReactNode } from "react";
import type { Refusal, Site } from "../../api/client";
import { useSiteWrite } from "../../api/queries";

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
  const unplaced = save.error?.problems.filter(({ path }) => !(path in props.form.values)) ?? [];
  return (
    <form
      onSubmit={props.form.onSubmit((values) =>
        save.mutate(values, { onSuccess: props.done, onError: refused }),
      )}
    >
      <Stack>
        {props.children}
        {unplaced.map(({ path, text }) => (
          <Text key={path + text} c="var(--ep-vermilion)" role="alert">
            {path ? `${path}: ${text}` : text}
          </Text>
        ))}
        <Button type="submit" loading={save.isPending}>
          {props.action}
        </Button>
      </Stack>
    </form>
  );
}
