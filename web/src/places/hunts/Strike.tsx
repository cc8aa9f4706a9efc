import classes from "./Hunts.module.css";

/** In a case: whether one takes this to be ruled out, by what one saw. */
export function Strike(props: { what: string; isOut: boolean; onTap: () => void }) {
  const said = props.isOut ? "Ruled out" : "Rule out";
  return (
    <button
      type="button"
      className={classes.strike}
      aria-pressed={props.isOut}
      aria-label={`${said} ${props.what}`}
      onClick={props.onTap}
    >
      <span aria-hidden>{props.isOut ? "✕" : "○"}</span>
      {said}
    </button>
  );
}
