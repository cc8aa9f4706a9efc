import classes from "./Toggle.module.css";

/** One of several that can each be on: pressed or not, and large enough for a glove. */
export function Toggle(props: { on: boolean; onToggle: () => void; children: string }) {
  return (
    <button type="button" className={classes.toggle} aria-pressed={props.on} onClick={props.onToggle}>
      {props.children}
    </button>
  );
}
