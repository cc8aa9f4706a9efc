import { Button } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { type RefObject, useEffect, useState } from "react";
import type { CaseHere, Entry } from "../../api/client";
import { keys } from "../../api/keys";
import { useCase, useDisplay, useDo } from "../../api/practice";
import { Unplaced } from "../../parts/Unplaced";
import classes from "./Display.module.css";

/** Where the probes are for a test of a sheet; without a line, on one another. */
export type OnASheet = { sheet: string; line?: string; test?: Record<string, unknown> };

/** Where the probes are along what is hunted; `side` of a box that is taken apart. */
export type OnAHunt = {
  hunt: string;
  at: string;
  side?: "feed" | "onward";
  function: "volts" | "ohms";
  from: string;
  to: string;
};

/** On a known source, or tip on tip, nothing can come of it. */
const isHarmless = (entry: Entry | OnASheet | OnAHunt | null) =>
  entry === null || ("sheet" in entry && entry.line === undefined);

/**
 * What the simulated tester shows once its probes are put on, which is something one does: on the wrong range it does
 * what it does. Elsewhere it is the meter on the wire that shows.
 */
export function Display(props: {
  /** None on a proving unit, or on what is known to be live. Of a dead test its sheet and line. */
  entry: Entry | OnASheet | OnAHunt | null;
  tester: string | null;
  /** Of a round: the outlet. */
  point?: string;
  ready: boolean;
  /** `typed`: what is typed of it in the form of a dead test. Without, it is only looked at. */
  onCapture?: (what: Partial<Entry>, typed: string) => void;
  /** What capturing is called, where it records nothing by itself. */
  takes?: string;
  /** What Enter does where nothing is typed: put it on, then record what it shows. */
  enter?: RefObject<(() => void) | null>;
}) {
  const { entry, tester, ready, point = null } = props;
  const here = useCase().data;
  const put = useDo();
  const where = JSON.stringify([entry, tester, point]);
  const [on, setOn] = useState("");
  const isOn = on === where && here?.over === false;
  const display = useDisplay(entry, tester, point, isOn);
  useEffect(() => setOn((was) => (was === where ? was : "")), [where]);
  const shown = isOn ? display.data : undefined;
  const queries = useQueryClient();
  /** What it shows at first comes with the answer. */
  const putOn = ({ display: first }: CaseHere) => {
    if (first) queries.setQueryData(keys.display(entry, tester, point), first);
    setOn(where);
  };
  const measure = () =>
    isHarmless(entry)
      ? setOn(where)
      : put.mutate({ doing: "probed", entry: entry ?? {}, tester, point }, { onSuccess: putOn });
  const record = () => shown?.entry && props.onCapture?.(shown.entry as Partial<Entry>, shown.typed);
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
          {props.onCapture && (
            <Button type="button" disabled={!shown?.entry} onClick={record}>
              {props.takes ?? "Record this"}
            </Button>
          )}
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
