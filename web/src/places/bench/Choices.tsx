import { Button } from "@mantine/core";
import type { Tester } from "../../api/client";
import type { Entry, FunctionId } from "./entry";
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

/** What can be seen of what is answered by picking. */
export function choicesFor(what: FunctionId, tester: Tester | undefined): [string, Partial<Entry>][] {
  const test_ma = tester?.entry.test_ma as number | undefined;
  switch (what) {
    case "trip":
      return [
        ["Tripped", { value: true, test_ma }],
        ["Did not trip", { value: false, test_ma }],
      ];
    case "sequence":
      return [
        ["In order", { value: true }],
        ["Reversed", { value: false }],
      ];
    case "steps":
      return stepChoices(tester?.steps_v ?? []);
    default:
      return [
        ["Alarm", { value: true }],
        ["Silent", { value: false }],
      ];
  }
}

function stepChoices(steps: number[]): [string, Partial<Entry>][] {
  const lit = steps.map((step, i): [string, Partial<Entry>] => {
    const next = steps[i + 1];
    return [`${step} V lit`, next === undefined ? { at_least: step } : { at_least: step, below: next }];
  });
  return [["None lit", { below: steps[0] }], ...lit];
}
