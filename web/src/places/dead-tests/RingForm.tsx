import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Sheet, TestLine } from "../../api/client";
import { draftOf, keepDraft } from "../../api/drafts";
import { usePractice } from "../../api/queries";
import { ENDS, keyOf, pairsOf, type RingTyped, ringTest, typedOf } from "../../reading/ring";
import { Outcome } from "./Outcome";
import classes from "./RingForm.module.css";
import shared from "./Sheet.module.css";
import { TesterChoice } from "./TesterChoice";
import { useJudged } from "./useJudged";
import type { PutDown } from "./usePutDown";

/** The ring: three ends, then every outlet with the ends cross-joined. OL is an end that is not joined. */
export function RingForm(props: {
  sheet: Sheet;
  line: TestLine;
  tester: string | null;
  onTester: (id: string | null) => void;
  putDown: PutDown;
}) {
  const { sheet, line, putDown, tester } = props;
  const place = `sheet ${sheet.id} ${line.id}`;
  const [typed, setTyped] = useState(
    () => draftOf<RingTyped>(place) ?? typedOf((line.taken?.test ?? {}) as Record<string, unknown>),
  );
  const test = ringTest(typed, sheet.points);
  const pairs = pairsOf(usePractice(sheet.practice));
  const judged = useJudged(sheet.id, line.id, test, tester);
  const refused = judged.error as { problems?: { path: string; text: string }[] } | null;
  const field = (key: string, label: string) => (
    <TextInput
      key={key}
      aria-label={label}
      inputMode="decimal"
      className="mono"
      value={typed[key] ?? ""}
      onChange={(event) => {
        const now = { ...typed, [key]: event.currentTarget.value };
        setTyped(now);
        keepDraft(place, now);
      }}
    />
  );
  return (
    <form
      aria-label={line.title}
      onSubmit={(event) => {
        event.preventDefault();
        if (!test || refused?.problems) return;
        putDown.put({ type: "tested", line: line.id, test }, line.title, { tester });
        keepDraft(place, null);
      }}
    >
      <p className="quiet">{line.why}</p>
      <div className={classes.ends}>
        {ENDS.map(([end, label]) => (
          // biome-ignore lint/a11y/noLabelWithoutControl: the control is the field within
          <label key={end}>
            {label}, Ω{field(end, `${label}, ohms`)}
          </label>
        ))}
      </div>
      <table className={classes.outlets}>
        <thead>
          <tr>
            <th scope="col">Cross-joined, at</th>
            {pairs.map(({ pair, name }) => (
              <th key={pair} scope="col">
                {name}, Ω
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sheet.points.map((point) => (
            <tr key={point.id}>
              <th scope="row">{point.title}</th>
              {pairs.map(({ pair, name }) => (
                <td key={pair}>{field(keyOf(point.id, pair), `${point.title}, ${name}, ohms`)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {refused && (
        <p className={shared.wrong} role="alert">
          {refused.problems?.map((p) => (p.path ? `${p.path}: ${p.text}` : p.text)).join(" ")}
        </p>
      )}
      {test && judged.data && !refused && <Outcome judged={judged.data} />}
      <Button type="submit" className={shared.main} disabled={test === null}>
        Record the ring
      </Button>
      <TesterChoice testers={sheet.testers} use="ohms" value={tester} onChange={props.onTester} />
    </form>
  );
}
