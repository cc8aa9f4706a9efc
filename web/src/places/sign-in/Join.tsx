import { Button, PasswordInput, Stack, Text, TextInput, Title } from "@mantine/core";
import { useForm } from "@mantine/form";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import client, { answer, type ComingIn, type Refusal } from "../../api/client";
import { Unplaced } from "../../parts/Unplaced";
import classes from "./SignIn.module.css";

/** Somebody comes in by a one-time link: joins a crew, or sets a new password. The secret is never in an address sent. */
export function Join() {
  const [key] = useState(() => window.location.hash.slice(1));
  const link = useQuery({
    queryKey: ["join", key],
    queryFn: () => answer(client.GET("/api/links/{key}", { params: { path: { key } } })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const form = useForm({ initialValues: { username: "", name: "", password: "" } });
  const { setFieldValue } = form;
  const meant = link.data?.name;
  useEffect(() => {
    if (meant) setFieldValue("name", meant);
  }, [meant, setFieldValue]);
  const comeIn = useMutation<unknown, Refusal, ComingIn>({
    mutationFn: (body) => answer(client.POST("/api/links/{key}", { params: { path: { key } }, body })),
    onSuccess: () => window.location.assign("/today"),
  });
  const wrong = (field: string) => comeIn.error?.at(field);
  if (link.isError)
    return (
      <main className={classes.page}>
        <div className={classes.panel}>
          <Title order={1} size={34}>
            Even Probe
          </Title>
          <p role="alert">{link.error.message}</p>
          <a className={classes.notices} href="/">
            To signing in
          </a>
        </div>
      </main>
    );
  if (!link.data) return <main aria-busy="true" />;
  const { crew, role, for_password, username } = link.data;
  return (
    <main className={classes.page}>
      <div className={classes.panel}>
        <Title order={1} size={34}>
          {for_password ? "A new password" : `Join ${crew}`}
        </Title>
        <Text mt={6} mb="lg" size="lg">
          {for_password
            ? `For ${meant}, who signs in as ${username}. Wherever you are signed in now, you are signed out.`
            : `As ${article(role)} ${role}. What you record is kept under your name.`}
        </Text>
        <form onSubmit={form.onSubmit((values) => comeIn.mutate(values))}>
          <Stack gap="md">
            {for_password ? (
              <input type="hidden" name="username" autoComplete="username" value={username} />
            ) : (
              <>
                <TextInput
                  label="Your name, as it is to stand on the record"
                  autoComplete="name"
                  required
                  {...form.getInputProps("name")}
                  error={wrong("name")}
                />
                <TextInput
                  label="The name you sign in with"
                  description="Short, with no space."
                  autoComplete="username"
                  autoCapitalize="none"
                  required
                  {...form.getInputProps("username")}
                  error={wrong("username")}
                />
              </>
            )}
            <PasswordInput
              label="Password"
              description="A few words only you would put together."
              autoComplete="new-password"
              required
              {...form.getInputProps("password")}
              error={wrong("password")}
            />
            <Unplaced error={comeIn.error} placed={["name", "username", "password"]} />
            <Button type="submit" loading={comeIn.isPending}>
              {for_password ? "Set it and sign in" : "Join and sign in"}
            </Button>
          </Stack>
        </form>
      </div>
    </main>
  );
}

const article = (role: string) => (/^[aeiou]/.test(role) ? "an" : "a");
