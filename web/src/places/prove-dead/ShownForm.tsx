import { Button, TextInput } from "@mantine/core";
import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Entry } from "../../api/client";
import { CASE } from "../../api/sandbox";
import { Choice } from "../../parts/Choice";
import { NumberField } from "../../parts/NumberField";
import { Display } from "../practice/Display";
import { type Hand, isSet, type Seen } from "./hand";
import shared from "./Prove.module.css";
import classes from "./ShownForm.module.css";
import type { StepProps } from "./step";

type Props = StepProps & {
  title: ReactNode;
  label: string;
  wants: string | null;
  onShown: (seen?: Seen) => void;
  onFailed?: () => void;
};

/** What the display shows: a large number and Enter, or the lamps of a tester that has steps. */
export function ShownForm(props: Omit<Props, "proof"> & { proof: boolean }) {
  const { hand, tester, change, wrong } = props;
  const { step } = props.at;
  const steps = tester?.steps_v ?? [];
  const ready = isSet(hand, tester);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (ready) field.current?.focus();
  }, [ready]);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (ready && hand.typed.trim() !== "") props.onShown();
        else field.current?.focus();
      }}
    >
      <h2>{props.title}</h2>
      {step === "low-impedance" && (
        <p className={shared.how}>
          More than nothing, less than dangerous: a ghost, or something that feeds back. Same tester, low
          impedance.
        </p>
      )}
      {props.proof && (
        <Choice
          hideLabel
          label="Proved on"
          value={hand.against}
          onChange={(against) => change({ against: against as typeof hand.against })}
          data={[
            { value: "proving-unit", label: "Proving unit" },
            { value: "known-live", label: "Known live" },
          ]}
        />
      )}
      {tester?.sets && props.wants === "dc" && (
        <p className={shared.how}>
          Now on <b>V DC</b>: something with a DC side reaches these conductors.
        </p>
      )}
      {tester?.sets && <MeterSetting {...props} />}
      <NumberField
        field={field}
        label={props.label}
        value={hand.typed}
        onChange={(typed) => change({ typed })}
        wrong={wrong ? "step-error" : null}
      >
        <span className={classes.big}>V {tester?.sets ? hand.mode?.toUpperCase() : ""}</span>
      </NumberField>
      {steps.length > 0 && (
        <div className={classes.lamps}>
          <span className="quiet">or the highest lamp lit</span>
          <div>
            {!props.proof && (
              <Button variant="default" onClick={() => props.onShown({ below: steps[0] })}>
                None
              </Button>
            )}
            {steps.map((volts, i) => (
              <Button
                key={volts}
                variant="default"
                onClick={() =>
                  props.onShown(
                    steps[i + 1] === undefined
                      ? { at_least: volts }
                      : { at_least: volts, below: steps[i + 1] },
                  )
                }
              >
                {volts}
              </Button>
            ))}
          </div>
        </div>
      )}
      {!props.proof && tester?.low_z && (
        <div className={classes.after}>
          <Choice
            hideLabel
            label="Input of the tester"
            value={hand.lowImpedance ? "low" : "high"}
            onChange={(input) => change({ lowImpedance: input === "low" })}
            data={[
              { value: "high", label: "As it is" },
              { value: "low", label: "Low impedance" },
            ]}
          />
        </div>
      )}
      {step === "low-impedance" && (
        <TextInput
          mt="sm"
          label="What explains it?"
          placeholder="lies beside the live pier feed"
          value={hand.note}
          onChange={(event) => change({ note: event.currentTarget.value })}
        />
      )}
      {CASE !== null && (
        <Display
          entry={props.proof ? null : voltsBetween(props)}
          tester={tester?.id ?? null}
          ready={ready}
          takes="Write it down"
          onCapture={({ value, at_least, below }) =>
            typeof value === "number"
              ? change({ typed: String(value) })
              : props.onShown({ at_least: asNumber(at_least), below: asNumber(below) })
          }
        />
      )}
      {!ready && (
        <p className={shared.how}>
          Say how the meter is set first: a wrong range reads 0 on a live conductor.
        </p>
      )}
      <Button type="submit" className={shared.main} disabled={!ready}>
        {props.proof ? "It shows that: proved" : "Record"}
      </Button>
      {props.onFailed && (
        <Button fullWidth variant="default" onClick={props.onFailed}>
          It shows nothing: failed
        </Button>
      )}
    </form>
  );
}

const asNumber = (value: unknown) => (typeof value === "number" ? value : undefined);

/** What is measured, as a reading has it. */
const voltsBetween = ({ at, hand }: Pick<StepProps, "at" | "hand">): Entry => ({
  quantity: "voltage",
  mode: hand.mode ?? "ac",
  from: at.pair?.from,
  to: at.pair?.to,
  ...(hand.lowImpedance && { input: "low-z" }),
});

/** Function and range, as they are set on the meter now. */
function MeterSetting({ hand, change }: Pick<StepProps, "hand" | "change">) {
  const auto = hand.range === "auto";
  const [typing, type] = useState(!auto && hand.range !== "");
  return (
    <>
      <div className={classes.setting}>
        <Choice
          hideLabel
          label="Function set on the meter"
          value={hand.mode ?? ""}
          onChange={(mode) => change({ mode: mode as Hand["mode"] })}
          data={[
            { value: "ac", label: "V AC" },
            { value: "dc", label: "V DC" },
          ]}
        />
        <Choice
          hideLabel
          label="Range set on the meter"
          value={auto ? "auto" : typing ? "set" : ""}
          onChange={(range) => {
            type(range === "set");
            change({ range: range === "auto" ? "auto" : "" });
          }}
          data={[
            { value: "auto", label: "Auto" },
            { value: "set", label: "Range" },
          ]}
        />
      </div>
      {typing && !auto && (
        <TextInput
          mt="xs"
          label="Range, V"
          inputMode="decimal"
          value={hand.range}
          onChange={(event) => change({ range: event.currentTarget.value })}
        />
      )}
    </>
  );
}
