import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { GuidedStep } from "../../../api/client";
import { typedNumber } from "../../../reading/typedNumber";
import classes from "../Hunts.module.css";

const OVER = "over";

/** What is measured at a step; an ohmmeter may show over-range. */
export function Figures(props: {
  asks: GuidedStep["asks"];
  ready: boolean;
  onRecord: (figures: object, said: string) => void;
}) {
  const { asks, ready, onRecord } = props;
  const [typed, type] = useState<Record<string, string>>({});
  const of = (id: string) => typed[id] ?? "";
  return (
    <form
      className={classes.figures}
      onSubmit={(event) => {
        event.preventDefault();
        const figures = asks.map((one) => [one.id, of(one.id) === OVER ? OVER : typedNumber(of(one.id))]);
        const said = asks.map(
          (one) => `${one.title} ${of(one.id) === OVER ? "over range" : `${of(one.id)} ${one.unit}`}`,
        );
        onRecord(Object.fromEntries(figures), said.join(", "));
      }}
    >
      {asks.map((one) => (
        <div key={one.id} className={classes.figure}>
          <TextInput
            label={`${one.title}, ${one.unit}`}
            inputMode="decimal"
            value={of(one.id) === OVER ? "" : of(one.id)}
            placeholder={of(one.id) === OVER ? "over range" : undefined}
            onChange={(event) => type({ ...typed, [one.id]: event.currentTarget.value })}
          />
          {one.may_be_over && (
            <Button
              variant={of(one.id) === OVER ? "filled" : "default"}
              aria-pressed={of(one.id) === OVER}
              aria-label={`${one.title}: over range`}
              onClick={() => type({ ...typed, [one.id]: of(one.id) === OVER ? "" : OVER })}
            >
              Over range
            </Button>
          )}
        </div>
      ))}
      <Button type="submit" size="lg" disabled={!ready || asks.some((one) => of(one.id) === "")}>
        Record
      </Button>
    </form>
  );
}
