import { Button } from "@mantine/core";
import type { Entry, Tester } from "../../api/client";

import type { TesterFunction } from "../../reading/functions";
import { typedNumber } from "../../reading/typedNumber";
import classes from "./ReadingPanel.module.css";

/** What can be seen, each a large target. */
export function Choices(props: {
  choices: [string, Partial<Entry>][];
  ready: boolean;
  onPick: (what: Partial<Entry>) => void;
}) {
  return (
    <div className={classes.choices}>
      {props.choices.map(([name, what]) => (
        <Button
          key={name}
          variant="default"
          size="lg"
          disabled={!props.ready}
          onClick={() => props.onPick(what)}
        >
          {name}
        </Button>
      ))}
    </div>
  );
}

/** What can be seen of what is answered by picking; a test's current goes with its answer, and how long a trip took. */
export function choicesFor(
  f: TesterFunction,
  tester: Tester | undefined,
  after = "",
): [string, Partial<Entry>][] {
  if (f.entered === "steps") return stepChoices(tester?.steps_v ?? []);
  const drives = f.needs.includes("test current")
    ? { test_ma: tester?.entry.test_ma as number | undefined }
    : {};
  const timed = f.timed && after.trim() ? { ms: typedNumber(after) as number } : {};
  return f.answers.map(({ value, label }) => [
    capitalised(label),
    { value, ...drives, ...(value ? timed : {}) },
  ]);
}

const capitalised = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function stepChoices(steps: number[]): [string, Partial<Entry>][] {
  const lit = steps.map((step, i): [string, Partial<Entry>] => {
    const next = steps[i + 1];
    return [`${step} V lit`, next === undefined ? { at_least: step } : { at_least: step, below: next }];
  });
  return [["None lit", { below: steps[0] }], ...lit];
}
