import { type RefObject, useCallback, useMemo, useState } from "react";
import type { Bench, Entry, Practice, Reading } from "../../api/client";
import { useKeep, useWhenSent } from "../../api/outbox/useOutbox";
import { type ReadingBody, type Waiting, type WithdrawalBody, withWaiting } from "../../api/outbox/waiting";
import { usePutBack } from "../../parts/usePutBack";
import { ends, seen } from "../../reading/entry";
import { type Change, entryFor, isReady, isTyped, type Setup } from "../../reading/setup";
import { useVerdictWhileTyped } from "./useVerdictWhileTyped";

const bodyOf = (setup: Setup, entry: Entry): ReadingBody => ({
  entry,
  tester: setup.tester,
  supersedes: setup.correcting,
});

/**
 * Recording a reading of a point, its way to the server, and taking it back: refused, undone or withdrawn. `named`: whether
 * it is said which tester is in the hand. `shown`: the point with what is known of a reading on its way; `unjudged`: how
 * many the verdict shown is without.
 */
export function useRecording(
  bench: Bench,
  practice: Practice,
  setup: Setup,
  change: (change: Change) => void,
  field: RefObject<HTMLInputElement | null>,
  named: boolean,
) {
  const { keep, waiting } = useKeep("reading", bench.id, bench.name);
  const { keep: keepWithdrawal } = useKeep("withdrawal", bench.id, bench.name);
  const { outbox } = waiting;
  const withdraw = useCallback(
    (reading: Pick<Reading, "id" | "entry">) => {
      if (outbox.all().some((one) => (one.body as WithdrawalBody).reading === reading.id)) return;
      keepWithdrawal(
        { reading: reading.id },
        `Take back ${ends(reading.entry, practice)}, ${seen(reading.entry)}`,
      );
    },
    [outbox, keepWithdrawal, practice],
  );

  const putBack = (one: Waiting) => {
    outbox.drop(one.id);
    const before = one.typed as Setup | undefined;
    if (before) change({ do: "put back", setup: before });
    field.current?.focus();
    return before?.typed ?? "";
  };
  const [refused, clearRefused] = usePutBack(
    waiting.list.filter((one) => one.kind === "reading"),
    setup.typed,
    putBack,
  );

  const isOnItsWay = waiting.list.length > 0;
  const typed = useMemo(
    () =>
      isReady(setup, named) && isTyped(setup) && !isOnItsWay
        ? bodyOf(setup, entryFor(setup, bench.terminals))
        : null,
    [setup, named, isOnItsWay, bench.terminals],
  );
  const ahead = useVerdictWhileTyped(bench, typed, waiting.list);

  const record = (entry: Entry) => {
    clearRefused();
    const body = bodyOf(setup, entry);
    const id = keep({ ...body, verdict_first: true }, `${ends(entry, practice)}, ${seen(entry)}`, setup);
    ahead.recorded(body, id);
    change({ do: "recorded", readings: withWaiting(bench.readings, outbox.all()) });
    field.current?.focus();
  };

  const [last, setLast] = useState<Waiting | null>(null);
  useWhenSent(
    useCallback(
      (one) => {
        if (one.of === bench.id && one.kind === "reading") setLast(one);
      },
      [bench.id],
    ),
  );
  /** The last reading that is there, until it is taken back. */
  const undoable = bench.readings.find((r) => r.id === last?.id && r.status === "counts");
  const undo = () => undoable && withdraw(undoable);

  return {
    shown: ahead.shown,
    unjudged: waiting.list.length - (ahead.isKnown ? 1 : 0),
    waiting,
    record,
    putBack,
    withdraw,
    undoable: undoable && last,
    undo,
    wrong: refused,
  };
}
