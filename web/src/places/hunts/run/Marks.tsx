import { Button, NativeSelect } from "@mantine/core";
import { useState } from "react";
import type { AlongRun, Hunt } from "../../../api/client";
import { useIntake } from "../../../api/queries";
import type { KeepSeen } from "../HuntPlace";
import classes from "../Hunts.module.css";

/** What makes a box, or the cable to it, more or less suspect. */
export function Marks({ hunt, run, keep }: { hunt: Hunt; run: AlongRun; keep: KeepSeen }) {
  const intake = useIntake(hunt.site.id);
  const [point, setPoint] = useState("");
  const [of, setOf] = useState<"box" | "cable">("box");
  const [mark, setMark] = useState("");
  const marks = intake.data?.marks ?? [];
  return (
    <details className={classes.fold} open={hunt.seen.length === 0}>
      <summary>What is old, damp, worked on, burnt?</summary>
      <form
        className={classes.numbers}
        onSubmit={(event) => {
          event.preventDefault();
          const name = run.points.find((p) => p.id === point)?.name;
          const title = marks.find((one) => one.id === mark)?.title;
          keep({ kind: "marked", entry: { point, [of]: mark } }, `${name}: ${title}`);
        }}
      >
        <NativeSelect
          label="Where"
          value={point}
          onChange={(event) => setPoint(event.currentTarget.value)}
          data={[
            { value: "", label: "Choose a box" },
            ...run.points.slice(1).map((p) => ({ value: p.id, label: p.name })),
          ]}
        />
        <NativeSelect
          label="What of it"
          value={of}
          onChange={(event) => setOf(event.currentTarget.value as "box" | "cable")}
          data={[
            { value: "box", label: "The box" },
            { value: "cable", label: "The cable to it" },
          ]}
        />
        <NativeSelect
          label="How it is"
          value={mark}
          onChange={(event) => setMark(event.currentTarget.value)}
          data={[{ value: "", label: "Choose" }, ...marks.map((m) => ({ value: m.id, label: m.title }))]}
        />
        <Button type="submit" variant="default" disabled={!point || !mark}>
          Mark it
        </Button>
      </form>
    </details>
  );
}
