import { Button, Checkbox, TextInput } from "@mantine/core";
import { useState } from "react";
import classes from "./LockForm.module.css";
import shared from "./Prove.module.css";

export function LockForm(props: { label: string; onLocked: (lock: string, tag: boolean) => void }) {
  const [lock, setLock] = useState("");
  const [tag, setTag] = useState(true);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        props.onLocked(lock.trim(), tag);
      }}
    >
      <h2>
        Lock <b>{props.label}</b>
      </h2>
      <p className={shared.how}>Your own lock, your own key in your pocket.</p>
      <TextInput
        label="Lock number"
        value={lock}
        onChange={(event) => setLock(event.currentTarget.value)}
        autoFocus
      />
      <Checkbox
        className={classes.check}
        size="lg"
        label="Tag hung, with name and time"
        checked={tag}
        onChange={(event) => setTag(event.currentTarget.checked)}
      />
      <Button type="submit" className={shared.main}>
        Locked
      </Button>
    </form>
  );
}
