import { Button } from "@mantine/core";
import type { Waiting } from "../../api/useWaiting";
import classes from "./WaitingList.module.css";

/** What was recorded here and is not at the server yet: it waits, or it was refused and a person has to say what next. */
export function WaitingList(props: {
  list: Waiting[];
  cutOff: boolean;
  onPutBack: (one: Waiting) => void;
  onAgain: (id: string) => void;
  onDrop: (id: string) => void;
}) {
  if (props.list.length === 0) return null;
  return (
    <ul className={classes.list} aria-label="Not at the server yet" aria-live="polite">
      {props.list.map((one) => (
        <li key={one.id} data-refused={one.problem ? true : undefined}>
          <span>
            <b>{one.said}</b>{" "}
            {one.problem ? (
              <span id={`refused-${one.id}`}>not recorded: {one.problem}</span>
            ) : props.cutOff ? (
              "saved on this device, waits for the line. The verdict is without it."
            ) : (
              "on its way"
            )}
          </span>
          {one.problem && (
            <span className={classes.acts}>
              <Button variant="default" onClick={() => props.onPutBack(one)}>
                Put back to correct
              </Button>
              <Button variant="subtle" onClick={() => props.onAgain(one.id)}>
                Send again
              </Button>
              <Button variant="subtle" onClick={() => props.onDrop(one.id)}>
                Drop
              </Button>
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
