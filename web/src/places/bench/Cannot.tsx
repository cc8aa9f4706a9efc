import { Button } from "@mantine/core";
import client, { answer, type Bench } from "../../api/client";
import { BENCH } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Unplaced } from "../../parts/Unplaced";
import { CANNOT, type Obstacle } from "../../reading/obstacles";
import classes from "./Cannot.module.css";

/** What a person says is not to be had: remembered at this site for the day, and no next test needs it then. */
function useCannot(bench: Bench) {
  const save = useRecord(BENCH, (cannot: Obstacle[]) =>
    answer(
      client.PUT("/api/points/{point_id}/cannot", {
        params: { path: { point_id: bench.id } },
        body: { cannot },
      }),
    ),
  );
  const said: Obstacle[] = bench.cannot;
  return {
    save,
    add: (obstacle: Obstacle) => save.mutate([...said, obstacle]),
    takeBack: (obstacle: Obstacle) => save.mutate(said.filter((other) => other !== obstacle)),
  };
}

/** Beside a suggestion: what it takes that may not be to be had. */
export function ICannot({ bench, needs }: { bench: Bench; needs: Obstacle[] }) {
  const { save, add } = useCannot(bench);
  if (needs.length === 0) return null;
  return (
    <div className={classes.cannot}>
      {needs.map((obstacle) => (
        <Button
          key={obstacle}
          variant="subtle"
          color="gray"
          loading={save.isPending}
          onClick={() => add(obstacle)}
        >
          {CANNOT[obstacle].say}
        </Button>
      ))}
      <Unplaced error={save.error} />
    </div>
  );
}

/** What was said today not to be had here, each to be taken back. */
export function SaidCannot({ bench }: { bench: Bench }) {
  const { save, takeBack } = useCannot(bench);
  if (bench.cannot.length === 0) return null;
  return (
    <div className={classes.said}>
      <span>Left out today:</span>
      {bench.cannot.map((obstacle) => (
        <Button
          key={obstacle}
          variant="default"
          loading={save.isPending}
          aria-label={`${CANNOT[obstacle].without}: offer it again`}
          onClick={() => takeBack(obstacle)}
        >
          {CANNOT[obstacle].without} <span aria-hidden>&nbsp;×</span>
        </Button>
      ))}
      <Unplaced error={save.error} />
    </div>
  );
}
