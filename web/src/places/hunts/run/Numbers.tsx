import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { AlongRun, Hunt } from "../../../api/client";
import { usePractice } from "../../../api/queries";
import { typedNumber } from "../../../reading/typedNumber";
import type { AtHunt } from "../HuntPlace";
import classes from "../Hunts.module.css";

type Seen = AtHunt["seen"];
const PAIRS = [
  ["L", "N"],
  ["L", "PE"],
  ["N", "PE"],
] as const;

/** Volts at a box under a known load at the far end. */
export function VoltsSeen(props: { hunt: Hunt; run: AlongRun; at: string; seen: Seen }) {
  const { hunt, run, at, seen } = props;
  const [typed, type] = useState<Record<string, string>>({ load: `${run.load_a ?? ""}` });
  const letters = usePractice(hunt.practice)?.letters ?? {};
  const keys = PAIRS.map((pair) => pair.join("-"));
  const volts = Object.fromEntries(
    keys.filter((key) => typed[key]).map((key) => [key, typedNumber(typed[key] ?? "")]),
  );
  const load_a = typedNumber(typed.load ?? "");
  const load_at = run.points.at(-1)?.id;
  const field = (key: string, label: string) => (
    <TextInput
      label={label}
      inputMode="decimal"
      value={typed[key] ?? ""}
      onChange={(event) => type({ ...typed, [key]: event.currentTarget.value })}
    />
  );
  return (
    <form
      className={classes.numbers}
      onSubmit={(event) => {
        event.preventDefault();
        seen({ at, volts, load_a, load_at }, `${run.next_name}: ${Object.keys(volts).length} voltages`);
        type({ load: typed.load ?? "" });
      }}
    >
      {PAIRS.map((pair) => (
        <span key={pair.join()}>
          {field(pair.join("-"), `${pair.map((one) => letters[one] ?? one).join(" to ")}, V`)}
        </span>
      ))}
      {field("load", "Load at the far end, A")}
      <Button type="submit" size="lg" disabled={Object.keys(volts).length === 0 || !load_a}>
        Record
      </Button>
    </form>
  );
}

/** Ohms of the joined conductors, from the board or an opened box: how far it can be. */
export function OhmsSeen({ run, seen }: { run: AlongRun; seen: Seen }) {
  const opened = run.points.filter((point) => point.saw.length > 0);
  const [at, setAt] = useState("");
  const [ohm, setOhm] = useState("");
  const [leads, setLeads] = useState("");
  if (opened.length === 0) return null;
  const from = at || (opened[0]?.id ?? "");
  return (
    <details className={classes.fold}>
      <summary>It has ohms: how far can it be?</summary>
      <form
        className={classes.numbers}
        onSubmit={(event) => {
          event.preventDefault();
          const entry = { at: from, resistance_ohm: typedNumber(ohm), null_ohm: typedNumber(leads || "0") };
          seen(entry, `${run.points.find((p) => p.id === from)?.name}: ${ohm} Ω`);
          setOhm("");
        }}
      >
        <label>
          Measured from
          <select value={from} onChange={(event) => setAt(event.currentTarget.value)}>
            {opened.map((point) => (
              <option key={point.id} value={point.id}>
                {point.name}
              </option>
            ))}
          </select>
        </label>
        <TextInput
          label="It reads, Ω"
          inputMode="decimal"
          value={ohm}
          onChange={(e) => setOhm(e.currentTarget.value)}
        />
        <TextInput
          label="Leads alone, Ω"
          inputMode="decimal"
          value={leads}
          onChange={(e) => setLeads(e.currentTarget.value)}
        />
        <Button type="submit" variant="default" disabled={!ohm}>
          Record
        </Button>
      </form>
    </details>
  );
}
