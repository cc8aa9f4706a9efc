import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Round, Stop } from "../../api/client";
import type { Pressed } from "./press";
import classes from "./Rounds.module.css";
import type { RoundEvents } from "./useRoundEvent";

/** For whoever holds the plug tester: what will go dark, and the press. */
export function PressHere(props: { round: Round; stop: Stop; testMa: number | null; events: RoundEvents }) {
  const { round, stop, testMa, events } = props;
  return (
    <div className={classes.press}>
      <h3>Press its trip button{testMa === null ? "" : `, ${testMa} mA`}</h3>
      <p>
        Warn first:{" "}
        {round.goes_dark.length
          ? `everything behind the device goes dark, ${round.goes_dark.join("; ")}.`
          : "everything behind the device goes dark."}{" "}
        Is somebody at the board?
      </p>
      <Button size="lg" onClick={() => events.happened(stop.id, "pressed", `Pressed at ${stop.name}`)}>
        I press now
      </Button>
    </div>
  );
}

/** For whoever watches the board, wherever this round is open: what the device did, and then that it is reset. */
export function PressState({ round, press, events }: { round: Round; press: Pressed; events: RoundEvents }) {
  const [which, setWhich] = useState("");
  const say = (tripped: boolean) => {
    const said = `Pressed at ${press.name}: ${tripped ? "tripped" : "stayed in"}`;
    events.happened(press.point, "watched", said, { tripped, reason: which });
    setWhich("");
  };
  if (press.state === "dark")
    return (
      <section className={classes.press} aria-live="polite">
        <h2>Tripped: dark until reset</h2>
        <p>
          {round.goes_dark.length ? `Dark now: ${round.goes_dark.join("; ")}. ` : ""}
          Reset the device once, see that it latches, and that the power is back. If it does not latch, leave
          it off, and find out why.
        </p>
        <Button size="lg" onClick={() => events.happened(press.point, "reset", "Reset, power is back")}>
          Reset, power is back
        </Button>
      </section>
    );
  return (
    <section className={classes.press} aria-live="assertive">
      <h2>Pressed at {press.name}. What did the device do?</h2>
      <div className={classes.answers}>
        <Button size="lg" onClick={() => say(true)}>
          Tripped
        </Button>
        <Button size="lg" variant="default" onClick={() => say(false)}>
          Stayed in
        </Button>
      </div>
      <TextInput
        label="Another device went, or anything else to note"
        value={which}
        onChange={(event) => setWhich(event.currentTarget.value)}
      />
    </section>
  );
}
