import { Button } from "@mantine/core";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Practice, Round, Stop, Tester } from "../../api/client";
import { useCase, useIsShown } from "../../api/practice";
import { usePractice, useRound, useTesters } from "../../api/queries";
import { CASE } from "../../api/sandbox";
import starting from "../../parts/Begin.module.css";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { VerdictShape, WORDS } from "../../parts/VerdictShape";
import { WaitingList } from "../../parts/WaitingList";
import { CasePanel, Complaint } from "../practice/CasePanel";
import { PressState } from "./Press";
import { progressOf } from "./RoundList";
import classes from "./Rounds.module.css";
import { StopPanel } from "./StopPanel";
import { useRoundEvent } from "./useRoundEvent";

export function RoundPlace() {
  const { roundId = "" } = useParams();
  const round = useRound(roundId);
  const practice = usePractice(round.data?.practice);
  const testers = useTesters();
  if (round.isError && !round.data) return <Failure error={round.error} retry={() => round.refetch()} />;
  if (!round.data || !practice || !testers.data) return <div aria-busy="true" />;
  const tester = testers.data.find((t) => t.id === round.data.tester);
  return <Going key={roundId} round={round.data} practice={practice} tester={tester} lost={round.isError} />;
}

/** The outlet in hand, and beside it the whole round. */
function Going(props: { round: Round; practice: Practice; tester: Tester | undefined; lost: boolean }) {
  const { round, practice, tester } = props;
  const [chosen, setHere] = useState(round.next ?? round.stops[0]?.id ?? "");
  const here = round.stops.find((stop) => stop.id === chosen) ?? round.stops[0];
  const events = useRoundEvent(round);
  const isShown = useIsShown();
  const isOver = useCase().data?.over === true;
  const manyCircuits = new Set(round.stops.map((s) => s.circuit)).size > 1;
  return (
    <Page
      title={round.title}
      under={`${progressOf(round)}. With ${round.tester_label || "a proved multimeter"}.`}
      back={["/rounds", "Rounds"]}
    >
      {props.lost && (
        <p role="alert" className={classes.wrong}>
          The server cannot be reached. What is typed stays; what was recorded is safe.
        </p>
      )}
      {CASE !== null && <Complaint />}
      {events.press && <PressState round={round} press={events.press} events={events} />}
      <div className={classes.round}>
        <section className={classes.here} aria-label="The outlet in hand">
          {round.stops.length === 0 && (
            <>
              <h2 className={classes.name}>No outlet is on this round</h2>
              <p>
                Its outlets were moved to another room, circuit or site since it was begun. What was recorded
                is with them. Move them back, or begin a round where they are now.
              </p>
              <Button component={Link} to="/rounds/new" size="lg" className={starting.main}>
                Begin a round
              </Button>
            </>
          )}
          {isOver && <h2 className={classes.name}>It is over</h2>}
          {here && !isOver && (
            <StopPanel
              key={here.id}
              round={round}
              stop={here}
              practice={practice}
              tester={tester}
              events={events}
              onNext={setHere}
            />
          )}
          <WaitingList waiting={events.waiting} />
        </section>
        <div>
          <nav className={classes.stops} aria-label="Outlets of the round">
            <ol>
              {round.stops.map((stop) => (
                <li key={stop.id}>
                  <button
                    type="button"
                    aria-current={stop === here ? "step" : undefined}
                    onClick={() => setHere(stop.id)}
                  >
                    <VerdictShape kind={isShown ? stop.verdict : "untested"} size={24} />
                    <span>
                      <strong>{stop.name}</strong>
                      <span className="quiet">
                        {manyCircuits && `${stop.circuit} · `}
                        {events.skipped(stop) ? "skipped, waits for the line" : stateOf(stop, isShown)}
                      </span>
                    </span>
                  </button>
                </li>
              ))}
            </ol>
          </nav>
          {CASE !== null && <CasePanel />}
        </div>
      </div>
    </Page>
  );
}

const STATES: Record<string, string> = {
  left: "to check",
  begun: "begun",
  quick: "quick check",
  full: "full check",
};

/** `isShown`: whether what it came to may be said. */
function stateOf(stop: Stop, isShown: boolean): string {
  if (stop.unshown) return stop.unshown;
  if (stop.state === "skipped") return `skipped: ${stop.reason}`;
  const checked = stop.state === "quick" || stop.state === "full";
  if (checked && !isShown) return "quick set taken";
  return checked
    ? `${STATES[stop.state]}: ${(WORDS[stop.verdict] ?? "").toLowerCase()}`
    : (STATES[stop.state] ?? "");
}
