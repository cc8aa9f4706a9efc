import { SegmentedControl } from "@mantine/core";
import type { ReactNode } from "react";
import classes from "./Choice.module.css";
import wrongs from "./Wrong.module.css";

/** A few answers side by side under their question, each a large target. */
export function Choice<V extends string>(props: {
  label: string;
  hideLabel?: boolean;
  value?: V;
  onChange: (value: V) => void;
  data: { value: V; label: string }[];
  error?: ReactNode;
}) {
  return (
    <div className={props.hideLabel ? undefined : classes.choice}>
      {!props.hideLabel && (
        <p className={classes.label} aria-hidden="true">
          {props.label}
        </p>
      )}
      <SegmentedControl
        aria-label={props.label}
        value={props.value ?? ("" as V)}
        onChange={props.onChange}
        data={props.data}
      />
      {props.error && (
        <p className={wrongs.wrong} role="alert">
          {props.error}
        </p>
      )}
    </div>
  );
}
