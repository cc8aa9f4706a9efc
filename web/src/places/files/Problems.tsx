import { Refusal } from "../../api/client";
import classes from "./Files.module.css";

/** What is wrong with a file, each with where. Nothing of it was written. */
export function Problems({ of, error }: { of: string; error: Error }) {
  const problems = error instanceof Refusal ? error.problems : [{ path: "", text: error.message }];
  return (
    <div role="alert" className={classes.wrong}>
      <strong>Nothing of {of} was brought in.</strong>
      <ul>
        {problems.map(({ path, text }) => (
          <li key={`${path} ${text}`}>
            {path && <code>{path}</code>} {text}
          </li>
        ))}
      </ul>
    </div>
  );
}
