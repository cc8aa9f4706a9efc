import { Button } from "@mantine/core";
import { Refusal } from "../../api/client";
import classes from "./Files.module.css";

/**
 * What is wrong with a file, each with where. `written`: it was to be written down, so that some of it may be, unless the
 * server said no to it at once.
 */
export function Problems(props: { of: string; error: Error; written?: boolean; again?: () => void }) {
  const { of, error, written = false, again } = props;
  const refusal = error instanceof Refusal ? error : null;
  const problems = refusal?.problems ?? [{ path: "", text: error.message }];
  const someOfIt = written && refusal?.status !== 422;
  return (
    <div role="alert" className={classes.wrong}>
      <strong>
        {someOfIt
          ? `Some of ${of} may be on record. Bring it in again: what is there is not written twice.`
          : `Nothing of ${of} was brought in.`}
      </strong>
      <ul>
        {problems.map(({ path, text }) => (
          <li key={`${path} ${text}`}>
            {path && <code>{path}</code>} {text}
          </li>
        ))}
      </ul>
      {again && refusal?.status !== 422 && (
        <Button variant="default" onClick={again}>
          Look at it again
        </Button>
      )}
    </div>
  );
}
