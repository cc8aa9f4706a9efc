import { PasswordInput, TextInput } from "@mantine/core";
import { type ReactNode, useState } from "react";
import client, { type Act, answer, Refusal } from "../api/client";
import { useNeedsSecond } from "../api/session";
import classes from "./Second.module.css";

const FIELDS = ["username", "password", "code"];

/**
 * Of what one's role does only with somebody beside one: who it is, typed by them here, for this one act. `stand` is
 * called with the id the act will have, before it; nothing of what was typed is kept. `placed`: what the fields show.
 */
export function useSecond(act: Act) {
  const needed = useNeedsSecond(act);
  const [typed, type] = useState({ username: "", password: "", code: "" });
  const [wrong, setWrong] = useState<Refusal | null>(null);
  const said = (field: string) => wrong?.at(field);
  const stand = async (id: string) => {
    if (!needed) return;
    setWrong(null);
    try {
      await answer(
        client.PUT("/api/seconds/{word_id}", { params: { path: { word_id: id } }, body: { act, ...typed } }),
      );
    } catch (error) {
      if (error instanceof Refusal) setWrong(error);
      throw error;
    }
  };
  const field = (name: keyof typeof typed) => ({
    value: typed[name],
    error: said(name),
    onChange: (event: React.ChangeEvent<HTMLInputElement>) =>
      type({ ...typed, [name]: event.currentTarget.value }),
    autoComplete: "off",
  });
  const form: ReactNode = needed && (
    <fieldset className={classes.second}>
      <legend>Not alone: somebody who may do it stands beside you</legend>
      <p>They type their own name and password here, for this once, and their name stands beside yours.</p>
      <TextInput label="Their name" autoCapitalize="none" {...field("username")} />
      <PasswordInput label="Their password" {...field("password")} autoComplete="new-password" />
      {said("code") && <TextInput label="Code from their app" {...field("code")} />}
    </fieldset>
  );
  const there = !needed || (typed.username !== "" && typed.password !== "");
  return { form, stand, there, placed: needed ? FIELDS : [] };
}
