import { Button, PasswordInput, Stack, TextInput } from "@mantine/core";
import { useForm } from "@mantine/form";
import { useSignIn } from "../../api/session";
import { Unplaced } from "../../parts/Unplaced";

/** Name and password; a code where the server asks for one. */
export function SignInForm() {
  const form = useForm({ initialValues: { username: "", password: "", code: "" } });
  const signIn = useSignIn();
  const wrong = (field: string) => signIn.error?.at(field);
  const asked = wrong("code") !== undefined || form.values.code !== "";
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
          error={wrong("password")}
        />
        {asked && (
          <TextInput
            label="Code from your app, or one of your paper codes"
            autoComplete="one-time-code"
            ref={(field) => field?.focus()}
            required
            {...form.getInputProps("code")}
            error={wrong("code")}
          />
        )}
        <Unplaced error={signIn.error} placed={["password", "code"]} />
        <Button type="submit" loading={signIn.isPending}>
          Sign in
        </Button>
      </Stack>
    </form>
  );
}
