import { SegmentedControl } from "@mantine/core";
import classes from "./Choice.module.css";

/** A few answers side by side under their question, each a large target. */
export function Choice(props: {
  label: string;
  hideLabel?: boolean;
  value?: string;
  onChange: (value: string) => void;
  data: { value: string; label: string }[];
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
        value={props.value ?? ""}
        onChange={props.onChange}
        data={props.data}
      />
    </div>
  );
}
