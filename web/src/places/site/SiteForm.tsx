import { Button, Stack } from "@mantine/core";
import type { UseFormReturnType } from "@mantine/form";
import { type ReactNode, useState } from "react";
import { type Effects as Found, Refusal, type Site } from "../../api/client";
import { SITE } from "../../api/records";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";
import { Effects } from "./Effects";

/** Something typed is wrong: saving says so at its field. */
const WRONG = 422;

type Values = Record<string, string>;

/** What is changed, and what of what stands already would read otherwise; none where it is new. */
type Change<V> = {
  write: (values: V) => Promise<Site>;
  effects?: ((values: V) => Promise<Found>) | undefined;
};

/** A form whose one write answers with the site. Where verdicts would be others, that is said and asked first. */
export function SiteForm<V extends Values>(
  props: Change<V> & {
    empty: V;
    done: (site: Site) => void;
    action: string;
    /** By the server's name, the field that shows it, where it has another. */
    names?: Record<string, string>;
    children: (field: UseFormReturnType<V>["getInputProps"]) => ReactNode;
  },
) {
  const { form, save, write, placed } = useRecordForm(props.empty, SITE, props.write, props.names);
  const [asked, ask] = useState<{ of: string; found: Found } | null>(null);
  const [looking, setLooking] = useState(false);
  const [failed, setFailed] = useState<Refusal | null>(null);
  const typed = JSON.stringify(form.values);
  const told = asked?.of === typed ? asked.found : null;
  const submit = async () => {
    setFailed(null);
    if (!props.effects || told) return write(undefined, props.done);
    setLooking(true);
    try {
      const found = await props.effects(form.values);
      if (found.points.length === 0) return write(undefined, props.done);
      ask({ of: typed, found });
    } catch (error) {
      const named = error instanceof Refusal && error.status === WRONG;
      if (named) write(undefined, props.done);
      else setFailed(error as Refusal);
    } finally {
      setLooking(false);
    }
  };
  return (
    <form onSubmit={form.onSubmit(() => void submit())}>
      <Stack>
        {props.children(form.getInputProps)}
        {told && <Effects found={told} />}
        <Unplaced error={save.error} placed={placed} />
        <Unplaced error={failed} />
        <Button type="submit" loading={save.isPending || looking}>
          {told ? "Save it even so" : props.action}
        </Button>
      </Stack>
    </form>
  );
}
