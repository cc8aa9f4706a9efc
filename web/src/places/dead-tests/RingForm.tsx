import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Sheet, TestLine } from "../../api/client";
import type { Test } from "../../reading/tested";
import { typedNumber } from "../../reading/typedNumber";
import { Outcome } from "./Outcome";
import classes from "./RingForm.module.css";
import shared from "./Sheet.module.css";
import { TesterChoice } from "./TesterChoice";
import { useJudged } from "./useJudged";
import type { PutDown } from "./usePutDown";

const ENDS = [
  ["r1", "Line ends, r1"],
  ["rn", "Neutral ends, rn"],
  ["r2", "Protective ends, r2"],
] as const;
const PAIRS = [
  ["r1_rn", "L to N"],
  ["r1_r2", "L to E"],
] as const;

/** The ring: three ends, then every outlet with the ends cross-joined. OL is an end that is not joined. */
export function RingForm(props: {
  sheet: Sheet;
  line: TestLine;
  tester: string | null;
  onTester: (id: string | null) => void;
  putDown: PutDown;
}) {
  const { sheet, line, putDown, tester } = props;
  const before = (line.taken?.test ?? {}) as Record<string, unknown>;
  const outletsBefore = (before.points ?? []) as Record<string, unknown>[];
  const [typed, setTyped] = useState<Record<string, string>>(() => ({
    ...Object.fromEntries(ENDS.map(([end]) => [end, String(before[end] ?? "")])),
    ...Object.fromEntries(
      outletsBefore.flatMap((o) => PAIRS.map(([pair]) => [`${o.id} ${pair}`, String(o[pair] ?? "")])),
    ),
  }));
  const of = (key: string) => typed[key]?.trim() ?? "";
  const open = ENDS.map(([end]) => end).filter((end) => /^ol$/i.test(of(end)));
  const complete = ENDS.every(([end]) => of(end) !== "");
  const test: Test | null = complete
    ? {
        ...Object.fromEntries(
          ENDS.filter(([end]) => !open.includes(end)).map(([end]) => [end, typedNumber(of(end))]),
        ),
        over_range: open,
        points: sheet.points
          .map((p) => ({
            id: p.id,
            label: p.title,
            ...Object.fromEntries(
              PAIRS.filter(([pair]) => of(`${p.id} ${pair}`) !== "").map(([pair]) => [
                pair,
                typedNumber(of(`${p.id} ${pair}`)),
              ]),
            ),
          }))
          .filter((p) => Object.keys(p).length > 2),
      }
    : null;
  const judged = useJudged(sheet.id, line.id, test, tester);
  const refused = judged.error as { problems?: { path: string; text: string }[] } | null;
  const wrong = putDown.error ?? refused;
  const field = (key: string, label: string) => (
    <TextInput
      key={key}
      aria-label={label}
      inputMode="decimal"
      className="mono"
      value={typed[key] ?? ""}
      onChange={(event) => {
        setTyped({ ...typed, [key]: event.currentTarget.value });
        putDown.reset();
      }}
    />
  );
  return (
    <form
      aria-label={line.title}
      onSubmit={(event) => {
        event.preventDefault();
        if (test) putDown.mutate({ entry: { type: "tested", line: line.id, test }, tester });
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
            {PAIRS.map(([pair, name]) => (
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
              {PAIRS.map(([pair, name]) => (
                <td key={pair}>{field(`${point.id} ${pair}`, `${point.title}, ${name}, ohms`)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {wrong && (
        <p className={shared.wrong} role="alert">
          {wrong.problems?.map((p) => (p.path ? `${p.path}: ${p.text}` : p.text)).join(" ")}
        </p>
      )}
      {test && judged.data && !refused && <Outcome judged={judged.data} />}
      <Button type="submit" className={shared.main} disabled={test === null} loading={putDown.isPending}>
        Record the ring
      </Button>
      <TesterChoice testers={sheet.testers} use="ohms" value={tester} onChange={props.onTester} />
    </form>
  );
}
