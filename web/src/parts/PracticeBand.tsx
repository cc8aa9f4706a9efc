import { HALL } from "../api/house";
import classes from "./PracticeBand.module.css";

/** On every place inside a case. */
export function PracticeBand() {
  return (
    <div className={classes.band} role="note">
      <strong>Practice: nothing here is real</strong>
      <a href={HALL}>Leave the case</a>
    </div>
  );
}
