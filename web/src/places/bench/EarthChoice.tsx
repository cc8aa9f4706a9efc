import { NativeSelect, TextInput } from "@mantine/core";
import { type Dispatch, memo } from "react";
import type { Practice } from "../../api/client";
import { kindOf, type ReferenceEarth } from "../../reading/referenceEarth";
import type { Change } from "../../reading/setup";
import classes from "./ReadingPanel.module.css";

/** What the reference earth is: a rod counts by itself, an outlet's earth only once another agrees. */
export const EarthChoice = memo(function EarthChoice(props: {
  practice: Practice;
  earth: ReferenceEarth;
  change: Dispatch<Change>;
}) {
  const { practice, earth, change } = props;
  const row = kindOf(earth, practice);
  return (
    <div className={classes.earth}>
      <NativeSelect
        aria-label="The reference is"
        value={earth.kind}
        onChange={(event) =>
          change({
            do: "earth",
            earth: { kind: event.currentTarget.value as ReferenceEarth["kind"], at: "" },
          })
        }
        data={practice.reference_earths.map((kind) => ({ value: kind.id, label: kind.name }))}
      />
      {row?.asks_which && (
        <>
          <TextInput
            aria-label="Which one"
            placeholder="Which one"
            maxLength={200}
            value={earth.at}
            onChange={(event) => change({ do: "earth", earth: { at: event.currentTarget.value } })}
          />
          <p className={classes.note}>Counts once a second one agrees: {row.wrong}.</p>
        </>
      )}
    </div>
  );
});
