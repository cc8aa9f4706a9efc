import { Button, PasswordInput, Stack, TextInput } from "@mantine/core";
import { useForm } from "@mantine/form";
import { useSignIn } from "../../api/session";

export function SignInForm() {
  const form = useForm({ initialValues: { username: "", password: "" } });
  const signIn = useSignIn();
  return (
    <form onSubmit={form.onSubmit((values) => signIn.mutate(values))}>
      <Stack gap="md">
        <TextInput
          label="Name"
          autoComplete="username"
          autoFocus
          data-autofocus
          required
          {...form.getInputProps("username")}
        />
        <PasswordInput
          label="Password"
          autoComplete="current-password"
          required
          {...form.getInputProps("password")}
          error={signIn.error?.message.replace(/^password: /, "")}
        />
        <Button type="submit" loading={signIn.isPending}>
          Sign in
        </Button>
      </Stack>
    </form>
  );
}
