import { PRACTICE } from "../api/sandbox";
import classes from "./PracticeBand.module.css";

/** On every place inside a case. */
export function PracticeBand() {
  return (
    <div className={classes.band} role="note">
      <strong>Practice: nothing here is real</strong>
      <a href={PRACTICE}>Leave the case</a>
    </div>
  );
}
