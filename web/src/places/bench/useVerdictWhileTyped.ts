import { useCallback, useEffect, useMemo, useState } from "react";
import client, { answer, asTyped, type Bench, type Reading } from "../../api/client";
import type { ReadingBody, Waiting } from "../../api/outbox/waiting";
import { CASE } from "../../api/sandbox";
import { WhileTyped } from "./whileTyped";

const TOO_LATE_MS = 3_000;

type Known = { reading: string; on: Bench; verdict: Bench["interpretation"]["verdict"]; summary: string };

/**
 * The point with the verdict that the reading just recorded makes of it, where the server said it while it was typed;
 * until the reading's own answer is there, and only while the point is as it was then. `typed`: what Enter would record
 * now; null while that is nothing, or while something is on its way that the server would not count.
 */
export function useVerdictWhileTyped(bench: Bench, typed: ReadingBody | null, waiting: Waiting[]) {
  const { id } = bench;
  const whileTyped = useMemo(
    () =>
      new WhileTyped((body) =>
        answer(
          client.POST("/api/points/{point_id}/judge", {
            params: { path: { point_id: id } },
            body: { ...body, entry: asTyped<Reading["entry"]>(body.entry) },
            signal: AbortSignal.timeout(TOO_LATE_MS),
          }),
        ),
      ),
    [id],
  );
  useEffect(() => {
    if (!typed || CASE !== null) return;
    /** A phone is slow: what was typed is drawn first. */
    const asked = setTimeout(() => whileTyped.typed(typed, bench));
    return () => clearTimeout(asked);
  }, [whileTyped, typed, bench]);
  const [known, setKnown] = useState<Known | null>(null);
  const recorded = useCallback(
    (body: ReadingBody, reading: string) =>
      whileTyped.recorded(body, bench, ({ verdict, summary }) => {
        if (verdict) setKnown({ reading, on: bench, verdict, summary });
      }),
    [whileTyped, bench],
  );
  const isKnown =
    known?.on === bench && waiting.some((one) => one.id === known.reading && one.problem === "");
  const shown = useMemo(
    () =>
      isKnown && known
        ? {
            ...bench,
            interpretation: { ...bench.interpretation, verdict: known.verdict, summary: known.summary },
            to_follow: true,
          }
        : bench,
    [bench, known, isKnown],
  );
  return { shown, recorded, isKnown };
}
