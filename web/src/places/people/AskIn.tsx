import { Button, Group, Stack, TextInput } from "@mantine/core";
import type { UseFormReturnType } from "@mantine/form";
import { useState } from "react";
import client, { answer, type OneTimeLink, type People } from "../../api/client";
import { newId } from "../../api/ids";
import { ONE_TIME_LINK } from "../../api/records";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";
import classes from "./People.module.css";
import { RoleFields, type RoleTyped, roleOf } from "./RoleFields";

/** For whom and as what: makes a link that lets them in once. */
export function AskIn({ roles, done }: { roles: People["roles"]; done: () => void }) {
  const [id] = useState(newId);
  const { form, save, write, placed } = useRecordForm<RoleTyped & { name: string }, OneTimeLink>(
    { name: "", role: "electrician", site: "", until: "" },
    ONE_TIME_LINK,
    ({ name, ...role }) =>
      answer(
        client.PUT("/api/people/links/{link_id}", {
          params: { path: { link_id: id } },
          body: { name, account: null, ...roleOf(role) },
        }),
      ),
  );
  return (
    <form className={classes.ask} onSubmit={form.onSubmit(() => write(undefined, done))}>
      <Stack>
        <TextInput
          label="Their name, as it is to stand on the record"
          required
          data-autofocus
          {...form.getInputProps("name")}
        />
        <RoleFields roles={roles} form={form as unknown as UseFormReturnType<RoleTyped>} />
        <Unplaced error={save.error} placed={placed} />
        <Group>
          <Button type="submit" loading={save.isPending}>
            Make the link
          </Button>
          <Button variant="default" onClick={done}>
            Leave it
          </Button>
        </Group>
      </Stack>
    </form>
  );
}
