import { Button, Group } from "@mantine/core";
import { notifications } from "@mantine/notifications";
import { type RefObject, useCallback, useRef } from "react";
import type { Bench, Entry, Practice } from "../../api/client";
import client, { answer } from "../../api/client";
import { newId } from "../../api/ids";
import { BENCH } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { useWaiting, useWhenSent, type Waiting } from "../../api/useWaiting";
import { withWaiting } from "../../api/waiting";
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
  const waiting = useWaiting(bench.id);
  const withdraw = useRecord(BENCH, (reading: string, { id }) =>
    answer(
      client.PUT("/api/points/{point_id}/withdrawals/{withdrawal_id}", {
        params: { path: { point_id: bench.id, withdrawal_id: id } },
        body: { reading },
      }),
    ),
  );

  const putBack = (one: Waiting) => {
    waiting.readings.drop(one.id);
    const before = one.typed as Setup | undefined;
    if (before) change({ do: "put back", setup: before });
    field.current?.focus();
    return before?.typed ?? "";
  };
  const [refused, clearRefused] = usePutBack(waiting.list, setup.typed, putBack);

  const record = (entry: Entry) => {
    clearRefused();
    waiting.readings.add({
      id: newId(),
      point: bench.id,
      body: {
        entry,
        tester: setup.tester,
        supersedes: setup.correcting,
        taken_at: new Date().toISOString(),
      },
      said: `${ends(entry, practice)}, ${seen(entry)}`,
      typed: setup,
    });
    change({ do: "recorded", readings: withWaiting(bench.readings, waiting.readings.all()) });
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
              withdraw.mutate(one.id);
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
        if (one.point === bench.id) offerUndo.current(one);
      },
      [bench.id],
    ),
  );

  return {
    waiting,
    record,
    putBack,
    withdraw: (reading: string) => withdraw.mutate(reading),
    busy: waiting.sending || withdraw.isPending,
    wrong: refused || (withdraw.error?.problems.map((p) => p.text).join(" ") ?? ""),
  };
}
