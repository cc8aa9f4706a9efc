import type { Refusal } from "../api/client";
import classes from "./Wrong.module.css";

/** What the server said no to that no field shows beside itself, or that it could not be reached. */
export function Unplaced({ error, placed = [] }: { error: Refusal | null; placed?: readonly string[] }) {
  const rest = error?.problems.filter(({ path }) => !placed.some((field) => path.startsWith(field))) ?? [];
  return rest.map(({ path, text }) => (
    <p key={path + text} className={classes.wrong} role="alert">
      {path ? `${path}: ${text}` : text}
    </p>
  ));
}
