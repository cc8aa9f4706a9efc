import { Button } from "@mantine/core";
import { useRef, useState } from "react";
import type { Sheet } from "../../api/client";
import { Choice } from "../../parts/Choice";
import { NumberField } from "../../parts/NumberField";
import { typedNumber } from "../../parts/typedNumber";
import classes from "./Sheet.module.css";
import { TesterChoice } from "./TesterChoice";
import type { PutDown } from "./usePutDown";

/** Loads, and whether the neutral is off its bar: both change what every later reading means. */
export function LoadsOut({ sheet, putDown }: { sheet: Sheet; putDown: PutDown }) {
  const [loads, setLoads] = useState(sheet.loads ?? undefined);
  const [neutral, setNeutral] = useState(sheet.neutral ?? undefined);
  const say = (said: { loads?: string; neutral?: string }) => {
    const both = { loads, neutral, ...said };
    setLoads(both.loads);
    setNeutral(both.neutral);
    if (both.loads && both.neutral) putDown.mutate({ entry: { type: "loads", ...both } });
  };
  return (
    <>
      <Choice
        label="Lamps, electronics and everything plugged in"
        value={loads}
        onChange={(value) => say({ loads: value })}
        data={[
          { value: "disconnected", label: "All out" },
          { value: "connected", label: "Still in" },
        ]}
      />
      <Choice
        label="The circuit's neutral"
        value={neutral}
        onChange={(value) => say({ neutral: value })}
        data={[
          { value: "lifted", label: "Off its bar" },
          { value: "connected", label: "On its bar" },
        ]}
      />
      <p className="quiet">
        With the neutral on its bar it is joined to earth at the board, so nothing measured between the two
        says anything.
      </p>
    </>
  );
}

export function Leads(props: {
  sheet: Sheet;
  putDown: PutDown;
  tester: string | null;
  onTester: (id: string | null) => void;
}) {
  const { sheet, putDown } = props;
  const field = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState("");
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim() !== "")
          putDown.mutate(
            { entry: { type: "leads", null_ohm: typedNumber(typed) }, tester: props.tester },
            { onSuccess: () => setTyped("") },
          );
      }}
    >
      {sheet.null_ohm !== null && (
        <p className={classes.said}>
          <span className="mono">{sheet.null_ohm} Ω</span> is taken off. {sheet.null_says}
        </p>
      )}
      <NumberField
        field={field}
        label="Tips together, ohms"
        value={typed}
        onChange={(value) => {
          setTyped(value);
          putDown.reset();
        }}
        wrong={putDown.error ? "null-wrong" : null}
        autoFocus
      >
        <span className={classes.unit}>Ω</span>
      </NumberField>
      {putDown.error && (
        <p id="null-wrong" className={classes.wrong} role="alert">
          {putDown.error.message}
        </p>
      )}
      <Button
        type="submit"
        className={classes.main}
        disabled={typed.trim() === ""}
        loading={putDown.isPending}
      >
        {sheet.null_ohm === null ? "Take it off every reading" : "Null again"}
      </Button>
      <TesterChoice testers={sheet.testers} use="ohms" value={props.tester} onChange={props.onTester} />
    </form>
  );
}

export function Discharge({ sheet, putDown, done }: { sheet: Sheet; putDown: PutDown; done: boolean }) {
  const held = sheet.lines
    .map((line) => line.taken?.outcome.computed.holds_s)
    .filter((s) => typeof s === "number");
  const longest = held.length > 0 ? Math.max(...(held as number[])) : null;
  return (
    <>
      {longest !== null && (
        <p>
          Left alone this run would hold its charge for about <span className="mono">{longest} s</span>.
        </p>
      )}
      {done ? (
        <p className={classes.said}>Discharged.</p>
      ) : (
        <Button
          className={classes.main}
          loading={putDown.isPending}
          onClick={() => putDown.mutate({ entry: { type: "discharged" } })}
        >
          It shows under 25 V
        </Button>
      )}
    </>
  );
}
