import { Button } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import type { Sheet, TestLine } from "../../api/client";
import { draftOf, keepDraft } from "../../api/drafts";
import { CASE } from "../../api/sandbox";
import { NumberField } from "../../parts/NumberField";
import { Toggle } from "../../parts/Toggle";
import { sign } from "../../reading/entry";
import {
  fieldsOf,
  isOverRange,
  kindOf,
  mainFigure,
  presetTyped,
  type TypedTest,
  testOf,
} from "../../reading/tested";
import { Display } from "../practice/Display";
import { Outcome } from "./Outcome";
import classes from "./Sheet.module.css";
import { TesterChoice } from "./TesterChoice";
import { TestFields, UnitChoice } from "./TestFields";
import { useJudged } from "./useJudged";
import type { PutDown } from "./usePutDown";

/** What was typed of which line, to be put back where the server refuses it. */
export type PutBack = { line: string; typed: TypedTest };

/** One line of the sheet being read: a large number, what it comes to as it is typed, and Record. */
export function TestForm(props: {
  sheet: Sheet;
  line: TestLine;
  tester: string | null;
  onTester: (id: string | null) => void;
  putDown: PutDown;
  /** What was typed, where the server refused it. */
  back: TypedTest | undefined;
  onDone: () => void;
}) {
  const { sheet, line, tester, putDown } = props;
  const field = useRef<HTMLInputElement>(null);
  const fields = fieldsOf(line.kind);
  const main = mainFigure(fields);
  const place = `sheet ${sheet.id} ${line.id}`;
  const [typed, setTyped] = useState(
    () => props.back ?? draftOf<TypedTest>(place) ?? presetTyped(fields, line.preset),
  );
  const type = (key: string, value: string) => {
    const now = { ...typed, [key]: value };
    setTyped(now);
    keepDraft(place, now);
  };

  useEffect(() => field.current?.focus({ preventScroll: true }), []);

  const test = testOf(fields, typed);
  /** What is picked beside what is not read yet, for which any number stands. */
  const picked = (main && testOf(fields, { ...typed, [main.key]: "1" })) ?? {};
  const judged = useJudged(sheet.id, line.id, test, tester);
  const refused = judged.error as { problems?: { path: string; text: string }[] } | null;
  const record = () => {
    if (test === null || refused?.problems) return;
    const shown = main ? `, ${typed[main.key] ?? ""} ${sign(main.unit)}` : "";
    putDown.put({ type: "tested", line: line.id, test }, line.title + shown, {
      tester,
      typed: { line: line.id, typed } satisfies PutBack,
    });
    keepDraft(place, null);
    props.onDone();
  };
  const before = main ? fields.slice(0, fields.indexOf(main)) : [];
  const after = main ? fields.slice(fields.indexOf(main) + 1) : fields;

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
      <TestFields fields={before} typed={typed} onType={type} />
      {main && (
        <>
          {CASE !== null && (
            <Display
              entry={{ sheet: sheet.id, line: line.id, test: picked }}
              tester={tester}
              ready={tester !== null}
              takes="Write it down"
              onCapture={(_, shown) => type(main.key, shown)}
            />
          )}
          {before.length > 0 && <p className={classes.label}>{main.label}</p>}
          <NumberField
            field={field}
            label={before.length > 0 ? main.label : `Reading, ${line.title}`}
            value={typed[main.key] ?? ""}
            onChange={(text) => type(main.key, isOverRange(text) ? "OL" : text)}
            wrong={refused ? "test-wrong" : null}
          >
            <span className={classes.unit}>{sign(main.unit)}</span>
          </NumberField>
          <div className={classes.keys}>
            {main.over_range && (
              <Toggle
                on={isOverRange(typed[main.key])}
                onToggle={() => type(main.key, isOverRange(typed[main.key]) ? "" : "OL")}
              >
                Over-range, OL
              </Toggle>
            )}
            {main.at_least && <span className="quiet">More than 200 is typed as &gt;200.</span>}
            <UnitChoice field={main} typed={typed} onType={type} />
          </div>
        </>
      )}
      {refused && (
        <p id="test-wrong" className={classes.wrong} role="alert">
          {refused.problems?.map((p) => (p.path ? `${p.path}: ${p.text}` : p.text)).join(" ")}
        </p>
      )}
      <TestFields fields={after} typed={typed} onType={type} />
      <div aria-live="polite" aria-busy={judged.isFetching}>
        {test !== null && judged.data && !refused && <Outcome judged={judged.data} />}
      </div>
      <Button type="submit" className={classes.main} disabled={test === null}>
        Record
      </Button>
      <TesterChoice
        testers={sheet.testers}
        use={kindOf(line.kind)?.use ?? "ohms"}
        value={tester}
        onChange={props.onTester}
      />
    </form>
  );
}
