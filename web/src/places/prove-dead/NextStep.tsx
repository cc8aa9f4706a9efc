import { Button, Text } from "@mantine/core";
import { useState } from "react";
import { useProofReference } from "../../api/queries";
import { askForNotices, mayAskForNotices } from "../../parts/callAttention";
import { HoldButton } from "../../parts/HoldButton";
import { Unplaced } from "../../parts/Unplaced";
import { useSecond } from "../../parts/useSecond";
import { provedEntry, testedEntry } from "./hand";
import { LockForm } from "./LockForm";
import classes from "./NextStep.module.css";
import shared from "./Prove.module.css";
import { ShownForm } from "./ShownForm";
import { SourceForm } from "./SourceForm";
import type { StepProps } from "./step";
import { PickTester, TesterInHand } from "./TesterInHand";
import { useConfirm } from "./useRecordEvent";

const BY_A_TESTER = ["prove", "prove-again", "test", "low-impedance"];

/** The one next thing to do, set up so that a number and Enter are enough. */
export function NextStep(props: StepProps) {
  const { wrong } = props;
  const { step } = props.at;
  return (
    <>
      <div className={classes.panel}>
        <StepOf {...props} />
        {wrong && (
          <Text role="alert" id="step-error" className={shared.wrong}>
            Not recorded: {wrong}
          </Text>
        )}
      </div>
      {step === "prove" && <Screening {...props} />}
      {props.tester && BY_A_TESTER.includes(step) && <TesterInHand {...props} />}
    </>
  );
}

/** A walk with the detector before any probe goes in: an alarm stops the work, silence is only written down. */
function Screening({ proof, onHappened }: StepProps) {
  const detector = proof.testers.find((t) => t.screens);
  if (!detector || proof.events.some((e) => e.type === "screened")) return null;
  const screened = (alarm: boolean) => onHappened({ type: "screened", alarm }, detector.id);
  return (
    <div className={classes.screening}>
      <span>
        Screen with {detector.label} first?{" "}
        <span className="quiet">Optional; silence cannot confirm safe.</span>
      </span>
      <Button variant="default" onClick={() => screened(false)}>
        Silent
      </Button>
      <Button variant="default" onClick={() => screened(true)}>
        Alarm
      </Button>
    </div>
  );
}

function StepOf(props: StepProps) {
  const { proof, practice, hand, tester, unsure, onHappened } = props;
  const { step, pair, mode } = props.at;
  const questions = useProofReference().data?.questions;
  const { sources } = proof.state;
  const source = sources.find((s) => s.id === props.at.source);
  const letter = (terminal: string) => practice.letters[terminal] ?? terminal;
  if (!tester && BY_A_TESTER.includes(step)) return <PickTester {...props} />;
  switch (step) {
    case "switch-off": {
      const how = questions?.find((q) => q.kind === source?.kind)?.isolate;
      return (
        <>
          <h2>
            Switch off <b>{source?.label}</b>
          </h2>
          <p className={shared.how}>
            {how ?? "The device itself, not a local switch: a local switch leaves the inside live."}
          </p>
          <Button
            className={shared.main}
            onClick={() => onHappened({ type: "off", source: props.at.source ?? undefined })}
            autoFocus
          >
            It is off
          </Button>
        </>
      );
    }
    case "lock":
      return (
        <LockForm
          label={source?.label ?? ""}
          onLocked={(lock, tag) =>
            onHappened({ type: "locked", source: props.at.source ?? undefined, tag, ...(lock && { lock }) })
          }
        />
      );
    case "prove":
    case "prove-again":
      return (
        <ShownForm
          {...props}
          title={
            <>
              Prove <b>{tester?.label}</b>
              {step === "prove-again" && " again"}
            </>
          }
          label="Volts shown on the known source"
          wants={mode}
          proof={true}
          onShown={(seen) => onHappened(provedEntry(hand, tester, seen))}
          onFailed={() => onHappened({ type: "prove-failed" })}
        />
      );
    case "test":
    case "low-impedance":
      return (
        pair && (
          <ShownForm
            {...props}
            title={
              <>
                <b className={classes.measuring}>{letter(pair.from)}</b> to {letter(pair.to)}
              </>
            }
            label={`Volts, ${letter(pair.from)} to ${letter(pair.to)}`}
            wants={mode}
            proof={false}
            onShown={(seen) => onHappened(testedEntry(hand, tester, pair, seen))}
          />
        )
      );
    case "find-source":
      return <SourceForm proof={proof} onHappened={onHappened} />;
    case "state":
      return <Confirm proof={proof} unsure={unsure} />;
    case "wait":
      return (
        <>
          <h2>
            Recorded. <b>Treat as live</b>
          </h2>
          <p className={shared.how}>
            What comes next waits for the server, which judges what you recorded. Anything else that happens
            can still be recorded below.
          </p>
        </>
      );
    case "keep":
      return (
        <>
          <h2>
            Dead <b>while you stay</b>
          </h2>
          <p className={shared.how}>
            Confirm you are here before the clock runs out: no longer valid after {proof.unattended_min} min
            with nobody seen.
          </p>
          <Button className={shared.main} onClick={() => onHappened({ type: "returned" })}>
            I am here
          </Button>
          <Button fullWidth variant="default" onClick={() => onHappened({ type: "left" })}>
            I am leaving for a while
          </Button>
          <Button fullWidth variant="default" mt="xs" onClick={props.onRenew}>
            Renew: prove the tester now
          </Button>
          <AskForNotices />
        </>
      );
    default:
      return (
        <>
          <h2>This proof is closed</h2>
          <p className={shared.how}>It stays on the record. Begin another before a hand goes in again.</p>
        </>
      );
  }
}

/** Said with one's name, of what the server knows: nothing without a line. */
function Confirm({ proof, unsure }: Pick<StepProps, "proof" | "unsure">) {
  const second = useSecond("state-dead");
  const confirm = useConfirm(proof, second.stand);
  return (
    <>
      <h2>
        Every step is done. State it <b>dead</b>?
      </h2>
      <p className={shared.how}>
        You say with your name that {proof.name} is dead on these conductors, here, now, while you stay.
      </p>
      {unsure ? (
        <p className={shared.wrong} role="alert">
          Confirming it dead needs the server, which cannot be asked now. Treat as live.
        </p>
      ) : (
        <>
          {second.form}
          <HoldButton
            label="Hold: proved dead"
            busy={confirm.isPending || !second.there}
            onHeld={() => confirm.mutate(undefined)}
          />
        </>
      )}
      <Unplaced error={confirm.error} placed={second.placed} />
    </>
  );
}

/** The device itself can tell of the end, on a locked screen too, once it is asked. */
function AskForNotices() {
  const [may, setMay] = useState(mayAskForNotices);
  if (!may) return null;
  return (
    <Button
      fullWidth
      variant="subtle"
      mt="xs"
      onClick={() => void askForNotices().then(() => setMay(mayAskForNotices()))}
    >
      Alert me before it ends
    </Button>
  );
}
