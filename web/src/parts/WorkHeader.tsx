import { Anchor } from "@mantine/core";
import type { ReactNode } from "react";
import { Link } from "react-router";
import classes from "./WorkHeader.module.css";

/** Over a place where work is done: the way back, where it is, what it is, and beside it how it stands. */
export function WorkHeader(props: {
  back: [path: string, name: string];
  under: string;
  title: string;
  children: ReactNode;
}) {
  return (
    <header className={classes.header}>
      <div className={classes.crumb}>
        <Anchor component={Link} to={props.back[0]} size="sm" underline="always">
          {props.back[1]}
        </Anchor>
        <span className="quiet"> · {props.under}</span>
        <h1>{props.title}</h1>
      </div>
      {props.children}
    </header>
  );
}
