import { type ReactNode, type RefObject, useEffect } from "react";
import classes from "./NumberField.module.css";

/**
 * The one large number of a place: takes digits at once, keeps what was typed, and says what is wrong under it.
 * What it opens with was typed before, and is marked: the next digit begins a new number and never ends an old one.
 */
export function NumberField(props: {
  field: RefObject<HTMLInputElement | null>;
  label: string;
  value: string;
  onChange: (typed: string) => void;
  /** Id of the text that says what is wrong, where something is. */
  wrong: string | null;
  autoFocus?: boolean;
  children: ReactNode;
}) {
  const { field } = props;
  useEffect(() => {
    if (field.current?.value) field.current.select();
  }, [field]);
  return (
    <div className={classes.number} data-wrong={props.wrong ? true : undefined}>
      <input
        ref={field}
        className={classes.field}
        inputMode="decimal"
        autoComplete="off"
        aria-label={props.label}
        aria-invalid={props.wrong !== null}
        aria-describedby={props.wrong ?? undefined}
        placeholder="—"
        value={props.value}
        onChange={(event) => props.onChange(event.currentTarget.value)}
        // biome-ignore lint/a11y/noAutofocus: digits go straight to the reading, that is what such a place is for
        autoFocus={props.autoFocus}
      />
      {props.children}
    </div>
  );
}
