import { Button, Modal } from "@mantine/core";
import { useState } from "react";
import type { Proof } from "../../api/client";
import classes from "./Alarm.module.css";

/** A voltage where there should be none: the whole screen, until the person has stepped back. */
export function Alarm({ problems }: { problems: Proof["state"]["problems"] }) {
  const latest = problems.at(-1);
  const [steppedBack, stepBack] = useState<number | null>(null);
  if (!latest) return null;
  return (
    <Modal
      opened={steppedBack !== latest.event}
      onClose={() => stepBack(latest.event)}
      fullScreen
      withCloseButton={false}
      closeOnEscape={false}
      transitionProps={{ duration: 0 }}
      classNames={{ content: classes.alarm, body: classes.alarmBody }}
      aria-label="Live. Hands off."
      role="alertdialog"
    >
      <svg viewBox="0 0 24 24" className={classes.alarmShape} aria-hidden="true">
        <path d="M12 1.5 23.5 22H.5z" />
      </svg>
      <h1>Live. Hands off.</h1>
      <p className={classes.alarmSaid}>{latest.text}.</p>
      <ol>
        <li>Take the probes off, measuring point first. Touch nothing else.</li>
        <li>Keep others away.</li>
        <li>Find what feeds it: another device, a control feed, a borrowed neutral, an inverter.</li>
        <li>Add it as a source, switch it off, lock it. Then test every pair again.</li>
      </ol>
      <Button
        size="xl"
        variant="white"
        className={classes.alarmDone}
        onClick={() => stepBack(latest.event)}
        data-autofocus
      >
        I have stepped back
      </Button>
    </Modal>
  );
}
