import { NativeSelect } from "@mantine/core";
import { type Dispatch, memo } from "react";
import type { Bench, Practice } from "../../api/client";
import { CASE } from "../../api/sandbox";
import { Toggle } from "../../parts/Toggle";
import { functionNamed } from "../../reading/functions";
import type { Change, Load, Setup } from "../../reading/setup";
import classes from "./ReadingPanel.module.css";

const LOADS: [Load, string][] = [
  ["none", "As is"],
  ["here", "Load here"],
  ["elsewhere", "Load elsewhere"],
];

/**
 * The circumstances of a voltage: as it is, under a known load and between what, alone, or with the device open, which in a case
 * is what was switched at the board. */
export const Loads = memo(function Loads(
  props: Pick<Setup, "what" | "load" | "nothingElseOn" | "deviceOpen" | "amperes" | "loadBetween"> & {
    terminals: Bench["terminals"];
    practice: Practice;
    change: Dispatch<Change>;
  },
) {
  const { terminals, practice, change, ...setup } = props;
  const live = terminals.filter((t) => t.startsWith("L") || t === "N");
  const pairs = live.flatMap((a, i) => live.slice(i + 1).map((b) => [a, b] as const));
  const letter = (terminal: string) => practice.letters[terminal] ?? terminal;
  return (
    <>
      <fieldset className={classes.loads}>
        <legend className={classes.hidden}>Circumstances</legend>
        {LOADS.map(([load, name]) => (
          <Toggle
            key={load}
            on={setup.load === load && !setup.deviceOpen && (load !== "none" || !setup.nothingElseOn)}
            onToggle={() => change({ do: "load", load })}
          >
            {name}
          </Toggle>
        ))}
        <Toggle
          on={setup.nothingElseOn}
          onToggle={() => change({ do: "nothing else on", said: !setup.nothingElseOn })}
        >
          Nothing else on
        </Toggle>
        {CASE === null && functionNamed(setup.what).device && (
          <Toggle on={setup.deviceOpen} onToggle={() => change({ do: "device", open: !setup.deviceOpen })}>
            Device open
          </Toggle>
        )}
      </fieldset>
      {setup.load !== "none" && (
        <label className={classes.amperes}>
          <input
            className="mono"
            inputMode="decimal"
            value={setup.amperes}
            onChange={(event) => change({ do: "amperes", amperes: event.currentTarget.value })}
          />
          A load
        </label>
      )}
      {setup.load !== "none" && pairs.length > 1 && (
        <NativeSelect
          aria-label="Load between"
          value={setup.loadBetween}
          onChange={(event) => change({ do: "load between", pair: event.currentTarget.value })}
          data={[
            { value: "", label: "on the pair measured" },
            ...pairs.map(([a, b]) => ({
              value: `${a} ${b}`,
              label: `between ${letter(a)} and ${letter(b)}`,
            })),
          ]}
        />
      )}
    </>
  );
});
