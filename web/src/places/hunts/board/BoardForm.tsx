import { NativeSelect, Textarea, TextInput } from "@mantine/core";
import type { Site } from "../../../api/client";
import classes from "../Hunts.module.css";
import { type TypedBoard, waysOf } from "./typed";

type Board = Site["supplies"][number]["boards"][number];

/** What of a board is not on record: how many ways more, and outlets by their names in walking order. */
export function BoardForm(props: { board: Board; typed: TypedBoard; onChange: (typed: TypedBoard) => void }) {
  const { board, typed, onChange } = props;
  const points = board.circuits.flatMap((circuit) => circuit.points).length;
  return (
    <>
      <TextInput
        label="Ways that are not on record"
        description={`On record: ${board.circuits.length}. How many more are there?`}
        inputMode="numeric"
        value={typed.more}
        onChange={(event) => onChange({ ...typed, more: event.currentTarget.value })}
      />
      <Textarea
        label="Outlets and lamps in walking order, one a line"
        description={points > 0 ? `The ${points} points on record come first.` : undefined}
        autosize
        minRows={4}
        value={typed.outlets}
        onChange={(event) => onChange({ ...typed, outlets: event.currentTarget.value })}
      />
      <details className={classes.fold}>
        <summary>Some ways must stay on, or off</summary>
        <div className={classes.numbers}>
          {waysOf(board.circuits, typed).map((way) => (
            <NativeSelect
              key={way.id}
              label={way.name}
              value={typed.fixed[way.id] ?? ""}
              data={[
                { value: "", label: "May be switched" },
                { value: "on", label: "Stays on" },
                { value: "off", label: "Stays off" },
              ]}
              onChange={(event) =>
                onChange({
                  ...typed,
                  fixed: { ...typed.fixed, [way.id]: event.currentTarget.value as "" | "on" | "off" },
                })
              }
            />
          ))}
        </div>
      </details>
    </>
  );
}
