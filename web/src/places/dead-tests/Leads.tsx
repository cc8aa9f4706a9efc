import { Button } from "@mantine/core";
import { useRef, useState } from "react";
import type { Sheet } from "../../api/client";
import { CASE } from "../../api/sandbox";
import { NumberField } from "../../parts/NumberField";
import { typedNumber } from "../../reading/typedNumber";
import { Display } from "../practice/Display";
import classes from "./Sheet.module.css";
import { TesterChoice } from "./TesterChoice";
import type { PutDown } from "./usePutDown";

/** Tips together: what they show is taken off every reading in ohms. */
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
        if (typed.trim() === "") return;
        const said = `Tips together, ${typed.trim()} Ω`;
        putDown.put({ type: "leads", null_ohm: typedNumber(typed) }, said, { tester: props.tester });
        setTyped("");
      }}
    >
      {sheet.null_ohm !== null && (
        <p className={classes.said}>
          <span className="mono">{sheet.null_ohm} Ω</span> is taken off. {sheet.null_says}
        </p>
      )}
      {CASE !== null && (
        <Display
          entry={{ sheet: sheet.id }}
          tester={props.tester}
          ready={props.tester !== null}
          takes="Write it down"
          onCapture={(_, shown) => setTyped(shown)}
        />
      )}
      <NumberField
        field={field}
        label="Tips together, ohms"
        value={typed}
        onChange={setTyped}
        wrong={null}
        autoFocus
      >
        <span className={classes.unit}>Ω</span>
      </NumberField>
      <Button type="submit" className={classes.main} disabled={typed.trim() === ""}>
        {sheet.null_ohm === null ? "Take it off every reading" : "Null again"}
      </Button>
      <TesterChoice testers={sheet.testers} use="ohms" value={props.tester} onChange={props.onTester} />
    </form>
  );
}
