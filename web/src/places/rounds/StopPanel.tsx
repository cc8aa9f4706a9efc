import { Button, Text, TextInput } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import type { Practice, Round, Stop, Tester } from "../../api/client";
import { useIsShown } from "../../api/practice";
import starting from "../../parts/Begin.module.css";
import { BesideWiring } from "../../parts/BesideWiring";
import { colourOf, VerdictShape, WORDS } from "../../parts/VerdictShape";
import { isPressed, QuickSet } from "../bench/QuickSet";
import { PressHere } from "./Press";
import classes from "./Rounds.module.css";
import type { RoundEvents } from "./useRoundEvent";

/** One outlet of the round: its quick set, its verdict, the next. */
export function StopPanel(props: {
  round: Round;
  stop: Stop;
  practice: Practice;
  tester: Tester | undefined;
  events: RoundEvents;
  onNext: (point: string) => void;
}) {
  const { round, stop, practice, tester, events } = props;
  const checked = stop.state === "quick" || stop.state === "full";
  const presses = stop.quick.find(isPressed);
  const taken = stop.quick.filter((q) => !isPressed(q)).every((q) => q.entry !== null);
  const isShown = useIsShown();
  const next = round.stops.find((s) => s.id === round.next && s.id !== stop.id);
  const onward = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (checked) onward.current?.querySelector<HTMLElement>("a, button")?.focus();
  }, [checked]);
  return (
    <>
      <h2 className={classes.name}>{stop.name}</h2>
      <QuickSet point={stop} practice={practice} tester={tester} testerId={round.tester} quick={stop.quick} />
      {stop.unfit && !checked && (
        <Text className={classes.unfit}>Kept, but not counted as a check: {stop.unfit}</Text>
      )}
      {isShown && stop.state !== "left" && stop.state !== "skipped" && (
        <div className={classes.verdict} aria-live="polite">
          <VerdictShape kind={stop.verdict} size={40} />
          <div>
            <strong style={{ color: colourOf(stop.verdict) }}>{WORDS[stop.verdict]}</strong>
            <p>{stop.summary}</p>
            <BesideWiring found={stop} />
          </div>
        </div>
      )}
      {presses && taken && presses.entry === null && !checked && events.press === null && (
        <PressHere round={round} stop={stop} testMa={presses.test_ma} events={events} />
      )}
      <div ref={onward} className={classes.onward}>
        {checked && next && events.press === null && (
          <Button size="lg" className={starting.main} onClick={() => props.onNext(next.id)}>
            Next: {next.name}
          </Button>
        )}
        {checked && !next && round.left === 0 && (
          <Button component={Link} to="/rounds" size="lg" className={starting.main}>
            The round is done
          </Button>
        )}
        <Button component={Link} to={`/bench/${stop.id}`} variant="default" size="lg">
          {isShown && checked && stop.state !== "full" ? "Full check on the Bench" : "Open on the Bench"}
        </Button>
        {!checked && <Skip round={round} stop={stop} events={events} onSkipped={props.onNext} />}
      </div>
    </>
  );
}

const TO_CHECK = ["left", "begun"];

function Skip(props: { round: Round; stop: Stop; events: RoundEvents; onSkipped: (point: string) => void }) {
  const { round, stop, events } = props;
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const [wrong, setWrong] = useState("");
  if (!asking)
    return (
      <Button variant="subtle" size="lg" onClick={() => setAsking(true)}>
        {stop.state === "skipped" ? "Skipped; say another reason" : "Skip it"}
      </Button>
    );
  return (
    <form
      className={classes.skip}
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim().length < round.shortest_reason) {
          setWrong("say why it is skipped");
          return;
        }
        events.happened(stop.id, "skipped", `${stop.name} skipped: ${reason}`, { reason });
        setAsking(false);
        const left = round.stops.find(
          (s) => TO_CHECK.includes(s.state) && s.id !== stop.id && !events.skipped(s),
        );
        if (left) props.onSkipped(left.id);
      }}
    >
      <TextInput
        label="Why is it skipped?"
        placeholder="Behind the loom, cannot be reached"
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
        error={wrong}
        data-autofocus
        autoFocus
      />
      <Button type="submit">Skip it</Button>
      <Button variant="default" onClick={() => setAsking(false)}>
        Stay here
      </Button>
    </form>
  );
}
