import { useMarks } from "../practice/useMarks";
import classes from "./Hunts.module.css";

/** In a case: whether one takes this to be ruled out, by what one saw. */
export function Strike({ id, what }: { id: string; what: string }) {
  const marks = useMarks();
  if (!marks) return null;
  const isOut = marks.out.has(id);
  const said = isOut ? "Ruled out" : "Rule out";
  return (
    <button
      type="button"
      className={classes.strike}
      aria-pressed={isOut}
      aria-label={`${said} ${what}`}
      onClick={() => marks.toggle(id)}
    >
      <span aria-hidden>{isOut ? "✕" : "○"}</span>
      {said}
    </button>
  );
}
