import { Button } from "@mantine/core";
import { useState } from "react";
import type { Station } from "../../api/client";

import { typedNumber } from "../../reading/typedNumber";
import classes from "./Sweep.module.css";
import { WalkLine } from "./WalkLine";

const STEP_M = 2;
const FEWEST = 2;

/** A walk with a detector, place by place: how far along, and what it does there. */
export function SweepEntry(props: { ready: boolean; onRecord: (sweep: Station[]) => void }) {
  const [stations, setStations] = useState<Station[]>([]);
  const [metres, setMetres] = useState("0");
  const last = stations.at(-1);
  const here = typedNumber(metres);
  const onward = typeof here === "number" && (last === undefined || here > last.m);
  const add = (alarm: boolean) => {
    if (typeof here !== "number") return;
    const before = last === undefined ? STEP_M : here - last.m;
    setStations([...stations, { m: here, alarm }]);
    setMetres(String(Math.round((here + before) * 100) / 100));
  };
  const length = (last?.m ?? 0) - (stations[0]?.m ?? 0);
  return (
    <div className={classes.entry}>
      {stations.length >= FEWEST && (
        <WalkLine
          stations={stations.map((s) => ({ ...s, across: (s.m - (stations[0]?.m ?? 0)) / length }))}
        />
      )}
      <div className={classes.place}>
        <label>
          At
          <input
            className="mono"
            inputMode="decimal"
            value={metres}
            aria-invalid={!onward}
            onChange={(event) => setMetres(event.currentTarget.value)}
          />
          m
        </label>
        <Button variant="default" size="lg" disabled={!onward} onClick={() => add(true)}>
          Alarm
        </Button>
        <Button variant="default" size="lg" disabled={!onward} onClick={() => add(false)}>
          Silent
        </Button>
        {last && (
          <Button variant="default" onClick={() => setStations(stations.slice(0, -1))}>
            Take {last.m} m back
          </Button>
        )}
      </div>
      {!onward && <p className={classes.note}>Each place is further along than the last, in metres.</p>}
      <Button
        className={classes.record}
        disabled={!props.ready || stations.length < FEWEST}
        onClick={() => props.onRecord(stations)}
      >
        Record the walk
      </Button>
    </div>
  );
}
