import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { AlongRun, Hunt } from "../../../api/client";
import { usePractice } from "../../../api/queries";
import { typedNumber } from "../../../reading/typedNumber";
import type { AtHunt } from "../HuntPlace";
import classes from "../Hunts.module.css";
import { Meter } from "../Meter";
import { PAIRS } from "../words";

type Seen = AtHunt["seen"];

/** Volts at a box, `here` by name, under a known load at the far end where one is asked for. */
export function VoltsSeen(props: {
  hunt: Hunt;
  run: AlongRun;
  at: string;
  here: string;
  loaded: boolean;
  tester: string | undefined;
  seen: Seen;
}) {
  const { hunt, run, at, here, loaded, tester, seen } = props;
  const [typed, type] = useState<Record<string, string>>({ load: `${run.load_a ?? ""}` });
  const letters = usePractice(hunt.practice)?.letters ?? {};
  const volts = Object.fromEntries(
    PAIRS.map((pair) => pair.join("-"))
      .filter((key) => typed[key])
      .map((key) => [key, typedNumber(typed[key] ?? "")]),
  );
  const load = loaded ? { load_a: typedNumber(typed.load ?? ""), load_at: run.points.at(-1)?.id } : {};
  const put = (key: string, value: string) => type((before) => ({ ...before, [key]: value }));
  return (
    <form
      className={classes.numbers}
      onSubmit={(event) => {
        event.preventDefault();
        seen({ at, volts, ...load }, `${here}: ${Object.keys(volts).length} voltages`, tester);
        type({ load: typed.load ?? "" });
      }}
    >
      {PAIRS.map(([from, to]) => {
        const name = `${letters[from] ?? from} to ${letters[to] ?? to}`;
        const key = `${from}-${to}`;
        return (
          <span key={key} className={classes.figure}>
            <TextInput
              label={`${name}, V`}
              inputMode="decimal"
              value={typed[key] ?? ""}
              onChange={(event) => put(key, event.currentTarget.value)}
            />
            <Meter
              hunt={hunt.id}
              tester={tester}
              probes={{ at, function: "volts", from, to }}
              name={name}
              onShown={(shown) => put(key, shown)}
            />
          </span>
        );
      })}
      {loaded && (
        <TextInput
          label="Load at the far end, A"
          inputMode="decimal"
          value={typed.load ?? ""}
          onChange={(event) => put("load", event.currentTarget.value)}
        />
      )}
      <Button type="submit" size="lg" disabled={Object.keys(volts).length === 0 || (loaded && !typed.load)}>
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
