import { NativeSelect } from "@mantine/core";
import { STEPS } from "./steps";

const CHOICES = Object.entries(STEPS).map(([value, label]) => ({ value, label }));

/** How hard a case is to be. */
export function StepChoice(props: { label: string; value: string; onChange: (step: string) => void }) {
  return (
    <NativeSelect
      label={props.label}
      value={props.value}
      onChange={(event) => props.onChange(event.currentTarget.value)}
      data={CHOICES}
    />
  );
}
