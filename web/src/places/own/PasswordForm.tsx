import { Button, PasswordInput, Stack } from "@mantine/core";
import { useForm } from "@mantine/form";
import client, { answer } from "../../api/client";
import { OWN } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Unplaced } from "../../parts/Unplaced";
import classes from "./Own.module.css";

/** The old one, and a new one. What is typed is kept nowhere. */
export function PasswordForm({ username }: { username: string }) {
  const form = useForm({ initialValues: { old: "", new: "" } });
  const change = useRecord(OWN, (body: { old: string; new: string }) =>
    answer(client.PUT("/api/own/password", { body })),
  );
  const wrong = (field: string) => change.error?.at(field);
  return (
    <section aria-labelledby="password">
      <h2 id="password">Change your password</h2>
      <form
        className={classes.form}
        onSubmit={form.onSubmit((typed) => change.mutate(typed, { onSuccess: () => form.reset() }))}
      >
        <Stack>
          <input type="hidden" name="username" autoComplete="username" value={username} />
          <PasswordInput
            label="The one you have now"
            autoComplete="current-password"
            required
            {...form.getInputProps("old")}
            error={wrong("old")}
          />
          <PasswordInput
            label="The new one"
            description="Every other device is signed out."
            autoComplete="new-password"
            required
            {...form.getInputProps("new")}
            error={wrong("new")}
          />
          <Unplaced error={change.error} placed={["old", "new"]} />
          <Button type="submit" variant="default" loading={change.isPending}>
            Change it
          </Button>
          {change.isSuccess && <p role="status">It is changed. Other devices are signed out.</p>}
        </Stack>
      </form>
    </section>
  );
}
