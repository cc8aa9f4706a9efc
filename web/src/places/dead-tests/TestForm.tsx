import { Button, NativeSelect } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import type { Sheet, TestLine } from "../../api/client";
import { Choice } from "../../parts/Choice";
import { NumberField } from "../../parts/NumberField";
import { Toggle } from "../../parts/Toggle";
import { typedNumber } from "../../parts/typedNumber";
import { OpensChoice } from "./OpensChoice";
import { Outcome } from "./Outcome";
import classes from "./Sheet.module.css";
import { TesterChoice } from "./TesterChoice";
import { type Typed, useJudged } from "./useJudged";
import type { PutDown } from "./usePutDown";

const UNITS = [
  { value: "ohm", label: "Ω" },
  { value: "kohm", label: "kΩ" },
  { value: "Mohm", label: "MΩ" },
];
const TEST_VOLTS = ["250", "500", "1000"];

/** One line of the sheet being read: a large number, what it comes to as it is typed, and Record. */
export function TestForm(props: {
  sheet: Sheet;
  line: TestLine;
  tester: string | null;
  onTester: (id: string | null) => void;
  putDown: PutDown;
  onDone: () => void;
}) {
  const { sheet, line, tester, putDown } = props;
  const field = useRef<HTMLInputElement>(null);
  const [number, setNumber] = useState("");
  const [over, setOver] = useState(false);
  const [unit, setUnit] = useState("ohm");
  const [volts, setVolts] = useState(String(line.preset.test_v ?? ""));
  const [opens, setOpens] = useState<string | undefined>();
  const [latches, setLatches] = useState<string | undefined>();
  const use = line.kind === "insulation" ? "insulation" : "ohms";

  useEffect(() => field.current?.focus({ preventScroll: true }), []);

  const test = typedTest();
  const judged = useJudged(sheet.id, line.id, test, tester);
  const refused = judged.error as { problems?: { path: string; text: string }[] } | null;
  const wrong = putDown.error ?? refused;
  const record = () => {
    if (test === null || putDown.isPending) return;
    putDown.mutate(
      { entry: { type: "tested", line: line.id, test }, tester, supersedes: undefined },
      { onSuccess: props.onDone },
    );
  };

  function typedTest(): Typed | null {
    const typed = number.trim() === "" ? null : typedNumber(number);
    if (line.kind === "closed-contact") {
      const open = opens === undefined ? {} : { open_over_range: opens === "over-range" };
      const latch = latches === undefined ? {} : { latches: latches === "yes" };
      const closed = over ? { closed_over_range: true } : typed === null ? {} : { closed_ohm: typed };
      const all = { ...open, ...latch, ...closed };
      return Object.keys(all).length === 0 ? null : all;
    }
    const atLeast = number.trim().match(/^>\s*(.+)$/)?.[1];
    const more: Typed = line.kind === "insulation" ? { test_v: Number(volts) } : {};
    if (over) return { ...more, over_range: true };
    if (typed === null) return null;
    if (line.kind === "insulation" && atLeast) return { ...more, at_least_mohm: typedNumber(atLeast) };
    if (line.kind === "insulation") return { ...more, measured_mohm: typed };
    return unit === "ohm" ? { measured_ohm: typed } : { measured_ohm: typed, unit };
  }

  return (
    <form
      className={classes.test}
      aria-label={line.title}
      onSubmit={(event) => {
        event.preventDefault();
        record();
      }}
    >
      <h3>{line.title}</h3>
      {line.why && <p className="quiet">{line.why}</p>}
      {line.kind === "closed-contact" && <OpensChoice value={opens} onChange={setOpens} />}
      {line.kind === "closed-contact" && <p className={classes.label}>Switched on, it reads</p>}
      <NumberField
        field={field}
        label={line.kind === "closed-contact" ? "Ohms when closed" : `Reading, ${line.title}`}
        value={over ? "OL" : number}
        onChange={(typed) => {
          setOver(/^ol?$/i.test(typed.trim()) && typed.trim().length === 2);
          setNumber(/^ol$/i.test(typed.trim()) ? "" : typed);
          putDown.reset();
        }}
        wrong={wrong ? "test-wrong" : null}
      >
        <span className={classes.unit}>{line.kind === "insulation" ? "MΩ" : "Ω"}</span>
      </NumberField>
      <div className={classes.keys}>
        <Toggle on={over} onToggle={() => setOver(!over)}>
          Over-range, OL
        </Toggle>
        {line.kind === "insulation" && <span className="quiet">More than 200 is typed as &gt;200.</span>}
        {line.kind === "separation" && (
          <NativeSelect
            aria-label="Unit on the display"
            value={unit}
            onChange={(event) => setUnit(event.currentTarget.value)}
            data={UNITS}
          />
        )}
      </div>
      {wrong && (
        <p id="test-wrong" className={classes.wrong} role="alert">
          {wrong.problems?.map((p) => (p.path ? `${p.path}: ${p.text}` : p.text)).join(" ")}
        </p>
      )}
      {line.kind === "closed-contact" && (
        <Choice
          label="It latches"
          value={latches}
          onChange={setLatches}
          data={[
            { value: "yes", label: "Yes" },
            { value: "no", label: "No" },
          ]}
        />
      )}
      {line.kind === "insulation" && (
        <Choice
          label="Test voltage, V DC"
          value={volts}
          onChange={setVolts}
          data={TEST_VOLTS.map((v) => ({ value: v, label: v }))}
        />
      )}
      <div aria-live="polite" aria-busy={judged.isFetching}>
        {test !== null && judged.data && !refused && <Outcome judged={judged.data} />}
      </div>
      <Button type="submit" className={classes.main} disabled={test === null} loading={putDown.isPending}>
        Record
      </Button>
      <TesterChoice testers={sheet.testers} use={use} value={tester} onChange={props.onTester} />
    </form>
  );
}
