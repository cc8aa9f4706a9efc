import { Button } from "@mantine/core";
import { useState } from "react";
import client, { answer } from "../../api/client";
import { SURVEY } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Unplaced } from "../../parts/Unplaced";

type What = "site" | "supply" | "board" | "circuit" | "point";

/** Takes a place out of use, or brings it back: nothing that was recorded there is lost by either. */
export function useRetire() {
  return useRecord(SURVEY, ({ what, id, retired }: { what: What; id: string; retired: boolean }) =>
    answer(
      client.PUT("/api/places/{what}/{place_id}/retired", {
        params: { path: { what, place_id: id } },
        body: { retired },
      }),
    ),
  );
}

/** Out of sight at a second tap: a first one may be a glove's. */
export function Retire({ what, id, done }: { what: What; id: string; done: () => void }) {
  const retire = useRetire();
  const [asking, ask] = useState(false);
  return (
    <>
      <Button
        mt="md"
        fullWidth
        variant="subtle"
        loading={retire.isPending}
        onBlur={() => ask(false)}
        onClick={() => (asking ? retire.mutate({ what, id, retired: true }, { onSuccess: done }) : ask(true))}
      >
        {asking ? "Take it out of use: tap again" : "Take it out of use"}
      </Button>
      <Unplaced error={retire.error} />
    </>
  );
}

/** What is out of use, each to be brought back. */
export function Retired({ list }: { list: { what: What; id: string; name: string; under: string }[] }) {
  const retire = useRetire();
  if (list.length === 0) return null;
  return (
    <details>
      <summary>Out of use: {list.length}</summary>
      {list.map(({ what, id, name, under }) => (
        <Button
          key={id}
          fullWidth
          mt="xs"
          variant="default"
          justify="flex-start"
          onClick={() => retire.mutate({ what, id, retired: false })}
        >
          Bring back {name}
          {under && `, ${under}`}
        </Button>
      ))}
      <Unplaced error={retire.error} />
    </details>
  );
}
