import type { Dispatch } from "react";
import type { Practice } from "../../api/client";
import { wordOf } from "../../api/reference";
import { Toggle } from "../../parts/Toggle";
import type { Change, Setup } from "../../reading/setup";
import classes from "./ReadingPanel.module.css";

const TURNS = 10;

/** What a clamp's reading needs beside its number: the most and the least, and where and round what it is closed. */
export function ClampedHow(props: { practice: Practice; setup: Setup; change: Dispatch<Change> }) {
  const { practice, setup, change } = props;
  const { clamp } = setup;
  const field = (name: "max" | "min", label: string) => (
    <label className={classes.amperes}>
      {label}
      <input
        className="mono"
        inputMode="decimal"
        value={clamp[name]}
        onChange={(event) => change({ do: "clamp", clamp: { [name]: event.currentTarget.value } })}
      />
      {setup.unit}
    </label>
  );
  return (
    <>
      {field("max", "Most, at the start")}
      {field("min", "Least")}
      <fieldset className={classes.loads}>
        <legend className={classes.hidden}>How the clamp is closed</legend>
        <Toggle
          on={clamp.atBoard}
          onToggle={() => change({ do: "clamp", clamp: { atBoard: !clamp.atBoard } })}
        >{`At the ${wordOf(practice, "board")}`}</Toggle>
        <Toggle
          on={clamp.roundTwo}
          onToggle={() => change({ do: "clamp", clamp: { roundTwo: !clamp.roundTwo } })}
        >
          Round two
        </Toggle>
        <Toggle
          on={clamp.turns > 1}
          onToggle={() => change({ do: "clamp", clamp: { turns: clamp.turns > 1 ? 1 : TURNS } })}
        >{`Splitter, ${TURNS} turns`}</Toggle>
        <Toggle
          on={clamp.continuous}
          onToggle={() => change({ do: "clamp", clamp: { continuous: !clamp.continuous } })}
        >
          3 h and more
        </Toggle>
      </fieldset>
    </>
  );
}
