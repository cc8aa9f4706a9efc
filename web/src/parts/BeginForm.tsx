import { Button, Text } from "@mantine/core";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Refusal } from "../api/client";
import classes from "./Begin.module.css";
import { Page } from "./Page";
import wrongs from "./Wrong.module.css";

const whole = (problem: { path: string; text: string }, names: Record<string, string>) => {
  const key =
    problem.path
      .replace(/\[\d+\]$/, "")
      .split(".")
      .at(-1) ?? "";
  return names[key] ? `${names[key]} ${problem.text}.` : problem.text;
};

/** Where something is begun at a site: its questions, what was wrong with the answers, and one large button. */
export function BeginForm(props: {
  title: string;
  back: [path: string, name: string];
  /** How many sites there are; none while that is asked. */
  sites: number | undefined;
  needs: string;
  button?: string;
  /** What is asked for, by the last key of its path, where what was wrong does not say so by itself. */
  names?: Record<string, string>;
  ready: boolean;
  pending: boolean;
  error: Refusal | null;
  onBegin: () => void;
  children: ReactNode;
}) {
  return (
    <Page title={props.title} back={props.back} busy={props.sites === undefined}>
      <form
        className={classes.form}
        onSubmit={(event) => {
          event.preventDefault();
          props.onBegin();
        }}
      >
        {props.children}
        {props.error && (
          <Text role="alert" className={wrongs.wrong}>
            {props.error.problems.map((p) => whole(p, props.names ?? {})).join(" ")}
          </Text>
        )}
        {props.sites === 0 && (
          <Text>
            There is no site yet. <Link to="/sites">Add one</Link> with its circuits and {props.needs} first.
          </Text>
        )}
        <Button type="submit" className={classes.main} disabled={!props.ready} loading={props.pending}>
          {props.button ?? "Begin"}
        </Button>
      </form>
    </Page>
  );
}
