import { Button } from "@mantine/core";
import { useLine } from "../../api/line";
import type { useOutbox, Waiting } from "../../api/outbox/useOutbox";
import classes from "./WaitingList.module.css";

/** What was recorded here and is not at the server yet: it waits, or it was refused and a person has to say what next. */
export function WaitingList(props: {
  waiting: ReturnType<typeof useOutbox>;
  onPutBack: (one: Waiting) => void;
}) {
  const { list, outbox } = props.waiting;
  const cutOff = useLine() !== null;
  if (list.length === 0) return null;
  return (
    <ul className={classes.list} aria-label="Not at the server yet" aria-live="polite">
      {list.map((one) => (
        <li key={one.id} data-refused={one.problem ? true : undefined}>
          <span>
            <b>{one.said}</b>{" "}
            {one.problem ? (
              <span id={`refused-${one.id}`}>not recorded: {one.problem}</span>
            ) : cutOff ? (
              "saved on this device, waits for the line. The verdict is without it."
            ) : (
              "on its way"
            )}
          </span>
          {one.problem && (
            <span className={classes.acts}>
              {one.typed !== undefined && (
                <Button variant="default" onClick={() => props.onPutBack(one)}>
                  Put back to correct
                </Button>
              )}
              <Button variant="subtle" onClick={() => outbox.again(one.id)}>
                Send again
              </Button>
              <Button variant="subtle" onClick={() => outbox.drop(one.id)}>
                Drop
              </Button>
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
