import { Button } from "@mantine/core";
import { type RefObject, useEffect, useState } from "react";
import type { Entry } from "../../api/client";
import { useCase, useDisplay, useDo } from "../../api/practice";
import { Unplaced } from "../../parts/Unplaced";
import classes from "./Display.module.css";

/**
 * What the simulated tester shows once its probes are put on, which is something one does: on the wrong range it does
 * what it does. Elsewhere it is the meter on the wire that shows.
 */
export function Display(props: {
  /** None on a proving unit, or on what is known to be live. */
  entry: Entry | null;
  tester: string | null;
  ready: boolean;
  onCapture: (what: Partial<Entry>) => void;
  /** What capturing is called, where it records nothing by itself. */
  takes?: string;
  /** What Enter does where nothing is typed: put it on, then record what it shows. */
  enter?: RefObject<(() => void) | null>;
}) {
  const { entry, tester, ready } = props;
  const here = useCase().data;
  const put = useDo();
  const where = JSON.stringify([entry, tester]);
  const [on, setOn] = useState("");
  const isOn = on === where && here?.over === false;
  const display = useDisplay(entry, tester, isOn);
  useEffect(() => setOn((was) => (was === where ? was : "")), [where]);
  const shown = isOn ? display.data : undefined;
  const measure = () =>
    entry === null
      ? setOn(where)
      : put.mutate({ doing: "probed", entry, tester }, { onSuccess: () => setOn(where) });
  const record = () => shown?.entry && props.onCapture(shown.entry as Partial<Entry>);
  useEffect(() => {
    if (props.enter) props.enter.current = isOn ? record : ready ? measure : null;
  });
  if (!here || here.over) return null;
  const isBlown = here.blown.includes(tester ?? "");
  return (
    <section className={classes.display} aria-label="What the tester shows">
      {isBlown ? (
        <p role="alert">
          <b>Dark.</b> Its fuse is blown. Take another tester, or go on without.
        </p>
      ) : !isOn ? (
        <>
          <span className={classes.dark} aria-hidden>
            – – –
          </span>
          <Button type="button" loading={put.isPending} disabled={!ready} onClick={measure}>
            Measure
          </Button>
        </>
      ) : (
        <>
          <output className={`mono ${classes.number}`} aria-live="polite" aria-label="Display">
            {display.isError ? "no reading" : (shown?.said ?? "…")}
          </output>
          <Button type="button" disabled={!shown?.entry} onClick={record}>
            {props.takes ?? "Record this"}
          </Button>
        </>
      )}
      {display.isError && isOn && (
        <p role="alert" className={classes.why}>
          {display.error.message.replace(/^entry: /, "")}
        </p>
      )}
      <Unplaced error={put.error} />
    </section>
  );
}
