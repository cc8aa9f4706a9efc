import { Button, Text, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Round, Stop } from "../../api/client";
import classes from "./Rounds.module.css";
import { useRoundEvent } from "./useRoundEvent";

/** For whoever holds the plug tester: what will go dark, and the press. */
export function PressHere({ round, stop, testMa }: { round: Round; stop: Stop; testMa: number | null }) {
  const keep = useRoundEvent(round.id);
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
      <Button
        size="lg"
        loading={keep.isPending}
        onClick={() => keep.mutate({ point: stop.id, kind: "pressed" })}
      >
        I press now
      </Button>
      <Wrong keep={keep} />
    </div>
  );
}

/** For whoever watches the board, wherever this round is open: what the device did, and then that it is reset. */
export function PressState({ round, press }: { round: Round; press: NonNullable<Round["press"]> }) {
  const keep = useRoundEvent(round.id);
  const [which, setWhich] = useState("");
  const say = (tripped: boolean) =>
    keep.mutate(
      { point: press.point, kind: "watched", tripped, reason: which },
      { onSuccess: () => setWhich("") },
    );
  if (press.state === "dark")
    return (
      <section className={classes.press} aria-live="polite">
        <h2>Tripped: dark until reset</h2>
        <p>
          {round.goes_dark.length ? `Dark now: ${round.goes_dark.join("; ")}. ` : ""}
          Reset the device once, see that it latches, and that the power is back. If it does not latch, leave
          it off, and find out why.
        </p>
        <Button
          size="lg"
          loading={keep.isPending}
          onClick={() => keep.mutate({ point: press.point, kind: "reset" })}
        >
          Reset, power is back
        </Button>
        <Wrong keep={keep} />
      </section>
    );
  return (
    <section className={classes.press} aria-live="assertive">
      <h2>Pressed at {press.name}. What did the device do?</h2>
      <div className={classes.answers}>
        <Button size="lg" loading={keep.isPending} onClick={() => say(true)}>
          Tripped
        </Button>
        <Button size="lg" variant="default" loading={keep.isPending} onClick={() => say(false)}>
          Stayed in
        </Button>
      </div>
      <TextInput
        label="Another device went, or anything else to note"
        value={which}
        onChange={(event) => setWhich(event.currentTarget.value)}
      />
      <Wrong keep={keep} />
    </section>
  );
}

function Wrong({ keep }: { keep: ReturnType<typeof useRoundEvent> }) {
  return keep.error ? (
    <Text role="alert" className={classes.wrong}>
      {keep.error.problems.map((p) => p.text).join(" ")}
    </Text>
  ) : null;
}
