import { Button, PasswordInput, Stack, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import client, { answer, type Refusal } from "../../api/client";
import { keys } from "../../api/keys";
import { OWN } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Unplaced } from "../../parts/Unplaced";
import classes from "./Own.module.css";

/** A code from an app beside the password, for whoever wants it. */
export function TwoStep({ on }: { on: boolean }) {
  return (
    <section aria-labelledby="two-step">
      <h2 id="two-step">Two-step sign-in</h2>
      {on ? <TurnOff /> : <TurnOn />}
    </section>
  );
}

function TurnOn() {
  const queries = useQueryClient();
  const [code, type] = useState("");
  const begin = useMutation<{ secret: string; picture: string }, Refusal>({
    mutationFn: () => answer(client.POST("/api/own/two-step")),
  });
  const turnOn = useMutation<{ codes: string[] }, Refusal>({
    mutationFn: () => answer(client.PUT("/api/own/two-step", { body: { code } })),
  });
  if (turnOn.data)
    return (
      <>
        <p>
          <strong>Two steps are on.</strong> Write these codes on paper and keep them where your phone is not:
          each signs you in once if the phone is gone. They are shown this once.
        </p>
        <ul className={classes.codes}>
          {turnOn.data.codes.map((one) => (
            <li key={one} className="mono">
              {one}
            </li>
          ))}
        </ul>
        <Button variant="default" onClick={() => queries.invalidateQueries({ queryKey: keys.own })}>
          They are on paper
        </Button>
      </>
    );
  if (!begin.data)
    return (
      <>
        <p>
          Off. With it on, a code from an app on your phone is asked for beside the password, so that a
          password somebody saw is no use to them.
        </p>
        <Unplaced error={begin.error} />
        <Button variant="default" loading={begin.isPending} onClick={() => begin.mutate()}>
          Turn it on
        </Button>
      </>
    );
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault();
        turnOn.mutate();
      }}
    >
      <Stack>
        <p>Let an app for one-time codes read this, or type what stands under it, and then its code.</p>
        <img className={classes.picture} alt="The same as the letters under it" src={begin.data.picture} />
        <code className={classes.secret}>{begin.data.secret.replace(/(.{4})/g, "$1 ").trim()}</code>
        <TextInput
          label="Code from the app"
          inputMode="numeric"
          autoComplete="one-time-code"
          required
          value={code}
          onChange={(event) => type(event.currentTarget.value)}
          error={turnOn.error?.at("code")}
        />
        <Unplaced error={turnOn.error} placed={["code"]} />
        <Button type="submit" loading={turnOn.isPending}>
          Turn it on
        </Button>
      </Stack>
    </form>
  );
}

function TurnOff() {
  const [password, type] = useState("");
  const turnOff = useRecord(OWN, () => answer(client.PUT("/api/own/two-step/off", { body: { password } })));
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault();
        turnOff.mutate();
      }}
    >
      <Stack>
        <p>On. A code is asked for beside your password.</p>
        <PasswordInput
          label="Your password, to turn it off"
          autoComplete="current-password"
          required
          value={password}
          onChange={(event) => type(event.currentTarget.value)}
          error={turnOff.error?.at("password")}
        />
        <Unplaced error={turnOff.error} placed={["password"]} />
        <Button type="submit" variant="default" loading={turnOff.isPending}>
          Turn it off
        </Button>
      </Stack>
    </form>
  );
}
