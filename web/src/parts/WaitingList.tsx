import { Button } from "@mantine/core";
import { Link } from "react-router";
import { useLine } from "../api/line";
import { KINDS } from "../api/outbox/kinds";
import type { useOutbox } from "../api/outbox/useOutbox";
import type { Waiting } from "../api/outbox/waiting";
import { dayAndTimeOf } from "../reading/dates";
import { TwoTapButton } from "./TwoTapButton";
import { useLate } from "./useLate";
import classes from "./WaitingList.module.css";

/**
 * What was recorded here and does not come to the server at once: it waits, or it was refused and a person has to say what next.
 * `onPutBack`: where it can be typed anew; else each has a link to where it was recorded.
 */
export function WaitingList(props: {
  waiting: ReturnType<typeof useOutbox>;
  onPutBack?: (one: Waiting) => void;
  /** Also what is only just on its way. */
  whole?: boolean;
}) {
  const { list } = props.waiting;
  const cutOff = useLine() !== null;
  const late = useLate(list.length > 0);
  const shown = list.filter((one) => props.whole || cutOff || late || one.problem !== "");
  if (shown.length === 0) return null;
  return (
    <ol className={classes.list} aria-label="Not at the server yet" aria-live="polite">
      {shown.map((one) => (
        <One key={one.id} one={one} outbox={props.waiting.outbox} onPutBack={props.onPutBack} />
      ))}
    </ol>
  );
}

function One(props: {
  one: Waiting;
  outbox: ReturnType<typeof useOutbox>["outbox"];
  onPutBack: ((one: Waiting) => void) | undefined;
}) {
  const { one, outbox, onPutBack } = props;
  const cutOff = useLine() !== null;
  const waits = cutOff
    ? "saved on this device, waits for the line. The verdict is without it."
    : one.held
      ? `still on this device, and tried again: ${one.held}`
      : "on its way";
  return (
    <li data-refused={one.problem ? true : undefined}>
      {onPutBack ? <b>{one.said}</b> : <Link to={KINDS[one.kind].place(one)}>{one.said}</Link>}{" "}
      {!onPutBack && (
        <span className={classes.where}>
          {one.where}, {dayAndTimeOf(one.at)}
        </span>
      )}
      <span>{one.problem ? `not recorded: ${one.problem}` : waits}</span>
      {one.problem && (
        <span className={classes.acts}>
          {onPutBack && one.typed !== undefined && (
            <Button variant="default" onClick={() => onPutBack(one)}>
              Put back to correct
            </Button>
          )}
          {!onPutBack && (
            <Button component={Link} to={KINDS[one.kind].place(one)} variant="default">
              Correct it there
            </Button>
          )}
          <Button variant="subtle" onClick={() => outbox.again(one.id)}>
            Send again
          </Button>
          <TwoTapButton asks="Drop" again="Drop it for good" onTapped={() => outbox.drop(one.id)} />
        </span>
      )}
    </li>
  );
}
