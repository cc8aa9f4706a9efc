import { Anchor, Title } from "@mantine/core";
import type { ReactNode } from "react";
import { Link } from "react-router";
import classes from "./Page.module.css";

/** A place that is read from the top: where it belongs, its name, what can be done here, and the rest. */
export function Page(props: {
  title: string;
  under?: string;
  back?: [path: string, name: string];
  actions?: ReactNode;
  busy?: boolean;
  children: ReactNode;
}) {
  return (
    <div className={classes.page} aria-busy={props.busy}>
      <header className={classes.head}>
        <div>
          {props.back && (
            <Anchor component={Link} to={props.back[0]} size="sm">
              {props.back[1]}
            </Anchor>
          )}
          <Title order={1} size={26}>
            {props.title}
          </Title>
          {props.under && <span className="quiet">{props.under}</span>}
        </div>
        <div className={classes.actions}>{props.actions}</div>
      </header>
      {props.busy && (
        <p className="quiet" role="status">
          Opening…
        </p>
      )}
      {props.children}
    </div>
  );
}
