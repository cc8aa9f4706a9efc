import { Button, PasswordInput, Stack, Text, TextInput, Title } from "@mantine/core";
import { useForm } from "@mantine/form";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import client, { answer, type Refusal, type Session } from "../../api/client";
import classes from "./SignIn.module.css";

export function SignIn() {
  const queries = useQueryClient();
  const form = useForm({ initialValues: { username: "", password: "" } });
  const signIn = useMutation<Session, Refusal, typeof form.values>({
    mutationFn: (body) => answer(client.POST("/api/session", { body })),
    onSuccess: (session) => queries.setQueryData(["session"], session),
  });
  return (
    <main className={classes.page}>
      <div className={classes.panel}>
        <Title order={1} size={34}>
          Even Probe
        </Title>
        <Text mt={6} mb="lg" size="lg">
          Takes your readings and says what they can still mean.
        </Text>
        <form onSubmit={form.onSubmit((values) => signIn.mutate(values))}>
          <Stack gap="md">
            <TextInput
              label="Name"
              autoComplete="username"
              autoFocus
              required
              {...form.getInputProps("username")}
            />
            <PasswordInput
              label="Password"
              autoComplete="current-password"
              required
              error={signIn.error?.message.replace(/^password: /, "")}
              {...form.getInputProps("password")}
            />
            <Button type="submit" loading={signIn.isPending}>
              Sign in
            </Button>
          </Stack>
        </form>
        <Text mt="xl" size="sm" className="quiet">
          This work can kill. Even Probe helps a competent person work in order and keeps their record. It
          does not replace training, the maker's instructions, local codes, permits or a licensed
          electrician's judgement. When in doubt, treat as live.
        </Text>
      </div>
    </main>
  );
}
