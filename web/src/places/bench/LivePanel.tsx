import { Button } from "@mantine/core";
import type { Entry, Live } from "../../api/client";
import { Toggle } from "../../parts/Toggle";
import { sign } from "../../reading/entry";
import { figure } from "../../reading/figure";
import classes from "./LivePanel.module.css";
import type { LiveMeter } from "./useLiveMeter";

const STATES: Record<string, string> = {
  garbage: "Not understood",
  "no-answer": "No answer",
  lost: "Link lost",
  busy: "Busy",
  "wrong-function": "Wrong function",
};

/** What the meter on the wire shows, to be held, and captured as it stands. Typing always works beside it. */
export function LivePanel(props: { meter: LiveMeter; onCapture: (what: Partial<Entry>) => void }) {
  const { meter } = props;
  const live = meter.held ?? meter.live;
  const shows = live && (live.state === "live" || live.state === "over-range");
  return (
    <section className={classes.live} aria-label="Meter on the wire" data-state={live?.state ?? "waiting"}>
      {meter.unreachable && !live ? (
        <p role="alert">
          <b>Server not reached.</b> Type the reading; nothing is lost.
        </p>
      ) : !live ? (
        <p className="quiet">Waiting for the meter</p>
      ) : !shows ? (
        <p role="alert">
          <b>{STATES[live.state] ?? live.state}:</b> {live.problem}. Type the reading meanwhile.
        </p>
      ) : (
        <output className={`mono ${classes.number}`} aria-live="off">
          {numberOf(live)}
          <span>{sign(live.unit)}</span>
        </output>
      )}
      {shows && (
        <>
          <span className={classes.extremes}>
            lowest <b className="mono">{figure(live.lowest)}</b> highest{" "}
            <b className="mono">{figure(live.highest)}</b>
          </span>
          <div className={classes.acts}>
            <Toggle on={meter.held !== null} onToggle={meter.hold}>
              Hold
            </Toggle>
            <Button variant="default" onClick={meter.anew}>
              Min/max anew
            </Button>
            <Button onClick={() => props.onCapture(live.entry as Partial<Entry>)}>Capture</Button>
          </div>
        </>
      )}
    </section>
  );
}

const numberOf = (live: Live) => (live.state === "over-range" ? "over range" : figure(live.value));
