import { Button, Group } from "@mantine/core";
import { notifications } from "@mantine/notifications";
import { type RefObject, useCallback, useRef } from "react";
import type { Bench, Entry, Practice } from "../../api/client";
import { newId } from "../../api/ids";
import type { ReadingBody, WithdrawalBody } from "../../api/outbox/kinds";
import { withWaiting } from "../../api/outbox/outbox";
import { useOutbox, useWhenSent, type Waiting } from "../../api/outbox/useOutbox";
import { ends, seen } from "../../reading/entry";
import type { Change, Setup } from "../../reading/setup";
import { usePutBack } from "./usePutBack";

/** Recording a reading of a point, its way to the server, and taking it back: refused, undone or withdrawn. */
export function useRecording(
  bench: Bench,
  practice: Practice,
  setup: Setup,
  change: (change: Change) => void,
  field: RefObject<HTMLInputElement | null>,
) {
  const waiting = useOutbox(bench.id);
  const withdraw = (reading: string) => {
    if (waiting.taken.some((one) => (one.body as WithdrawalBody).reading === reading)) return;
    const entry = bench.readings.find((r) => r.id === reading)?.entry;
    const body: WithdrawalBody = { reading };
    const what = entry ? `${ends(entry, practice)}, ${seen(entry)}` : "a reading";
    waiting.outbox.add({
      id: newId(),
      kind: "withdrawal",
      of: bench.id,
      where: bench.name,
      body,
      said: `Take back ${what}`,
    });
  };

  const putBack = (one: Waiting) => {
    waiting.outbox.drop(one.id);
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
    const body: ReadingBody = {
      entry,
      tester: setup.tester,
      supersedes: setup.correcting,
      taken_at: new Date().toISOString(),
    };
    waiting.outbox.add({
      id: newId(),
      kind: "reading",
      of: bench.id,
      where: bench.name,
      body,
      said: `${ends(entry, practice)}, ${seen(entry)}`,
      typed: setup,
    });
    change({ do: "recorded", readings: withWaiting(bench.readings, waiting.outbox.all()) });
    field.current?.focus();
  };

  const offerUndo = useRef((_one: Waiting) => {});
  offerUndo.current = (one) => {
    notifications.clean();
    const shown = notifications.show({
      withCloseButton: false,
      message: (
        <Group justify="space-between" wrap="nowrap">
          <span>{one.said} recorded.</span>
          <Button
            variant="default"
            onClick={() => {
              notifications.hide(shown);
              withdraw(one.id);
            }}
          >
            Undo
          </Button>
        </Group>
      ),
    });
  };
  useWhenSent(
    useCallback(
      (one) => {
        if (one.of === bench.id && one.kind === "reading") offerUndo.current(one);
      },
      [bench.id],
    ),
  );

  return {
    waiting,
    record,
    putBack,
    withdraw,
    busy: waiting.sending,
    wrong: refused,
  };
}
