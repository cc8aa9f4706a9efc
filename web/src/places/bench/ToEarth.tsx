import { Text } from "@mantine/core";
import { memo } from "react";
import type { Bench, Practice } from "../../api/client";
import { Ladder } from "../../parts/Ladder";
import { Phasors } from "../../parts/Phasors";
import classes from "./BenchPlace.module.css";

/** Where each conductor is, as far as the readings pin it down; drawn anew only when they do. */
export const ToEarth = memo(function ToEarth({ bench, practice }: { bench: Bench; practice: Practice }) {
  const { interpretation } = bench;
  if (interpretation.stories.length === 0 || interpretation.verdict === "untested")
    return (
      <Text className="quiet">
        {interpretation.verdict === "contradictory"
          ? "The readings contradict each other, so nothing can be placed. Retake first."
          : "Each conductor is placed here as the readings pin it down."}
      </Text>
    );
  return (
    <>
      <Ladder
        stories={interpretation.stories}
        practice={practice}
        nominal={bench.nominal_volts}
        band={interpretation.healthy_band ?? null}
        short={severalLines(bench.terminals)}
      />
      {severalLines(bench.terminals) && (
        <div className={classes.phasors}>
          {interpretation.stories.map((story) => (
            <Phasors key={story.title} story={story} practice={practice} />
          ))}
        </div>
      )}
    </>
  );
});

const severalLines = (terminals: string[]) => terminals.filter((t) => t.startsWith("L")).length > 1;
