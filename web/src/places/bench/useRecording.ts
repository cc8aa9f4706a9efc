import { type RefObject, useCallback, useState } from "react";
import type { Bench, Entry, Practice, Reading } from "../../api/client";
import { useKeep, useWhenSent } from "../../api/outbox/useOutbox";
import { type Waiting, type WithdrawalBody, withWaiting } from "../../api/outbox/waiting";
import { usePutBack } from "../../parts/usePutBack";
import { ends, seen } from "../../reading/entry";
import type { Change, Setup } from "../../reading/setup";

/** Recording a reading of a point, its way to the server, and taking it back: refused, undone or withdrawn. */
export function useRecording(
  bench: Bench,
  practice: Practice,
  setup: Setup,
  change: (change: Change) => void,
  field: RefObject<HTMLInputElement | null>,
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

  const record = (entry: Entry) => {
    clearRefused();
    const body = { entry, tester: setup.tester, supersedes: setup.correcting, verdict_first: true };
    keep(body, `${ends(entry, practice)}, ${seen(entry)}`, setup);
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
    waiting,
    record,
    putBack,
    withdraw,
    undoable: undoable && last,
    undo,
    wrong: refused,
  };
}
