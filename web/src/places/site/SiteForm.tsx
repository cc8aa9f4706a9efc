import { Button, Stack } from "@mantine/core";
import type { UseFormReturnType } from "@mantine/form";
import type { ReactNode } from "react";
import type { Site } from "../../api/client";
import { SITE } from "../../api/records";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";

type Values = Record<string, string>;

/** A form whose one write answers with the site. */
export function SiteForm<V extends Values>(props: {
  empty: V;
  write: (values: V) => Promise<Site>;
  done: (site: Site) => void;
  action: string;
  /** By the server's name, the field that shows it, where it has another. */
  names?: Record<string, string>;
  children: (field: UseFormReturnType<V>["getInputProps"]) => ReactNode;
}) {
  const { form, save, write, placed } = useRecordForm(props.empty, SITE, props.write, props.names);
  return (
    <form onSubmit={form.onSubmit(() => write(undefined, props.done))}>
      <Stack>
        {props.children(form.getInputProps)}
        <Unplaced error={save.error} placed={placed} />
        <Button type="submit" loading={save.isPending}>
          {props.action}
        </Button>
      </Stack>
    </form>
  );
}
