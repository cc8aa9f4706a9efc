import { Button, Modal, NativeSelect, Stack, Text, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useState } from "react";
import client, { answer, type Bench } from "../../api/client";
import { useSite, useSitesInUse } from "../../api/queries";
import { SURVEY } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Unplaced } from "../../parts/Unplaced";
import classes from "./BenchPlace.module.css";

/** An outlet that was measured before anybody said where it belongs: what is assumed of it, and filing it. */
export function FileAway({ bench }: { bench: Bench }) {
  const [filing, file] = useDisclosure();
  return (
    <p className={classes.loose}>
      <span>
        Supply assumed: {bench.system_title}, {bench.earthing}.
      </span>
      <Button variant="default" onClick={file.open}>
        Put it where it belongs
      </Button>
      {filing && (
        <Modal opened onClose={file.close} title="Where does it belong?">
          <Where bench={bench} done={file.close} />
        </Modal>
      )}
    </p>
  );
}

function Where({ bench, done }: { bench: Bench; done: () => void }) {
  const sites = (useSitesInUse().data ?? []).filter((s) => s.practice === bench.practice);
  const [siteId, setSite] = useState("");
  const [circuitId, setCircuit] = useState("");
  const [name, setName] = useState(bench.name);
  const site = useSite(siteId || undefined).data;
  const circuits = (site?.supplies ?? []).flatMap((supply) =>
    supply.boards.flatMap((board) =>
      board.circuits.map((c) => ({ value: c.id, label: `${c.name}, ${board.name}` })),
    ),
  );
  const save = useRecord(SURVEY, (_: undefined) =>
    answer(
      client.PUT("/api/points/{point_id}/filed", {
        params: { path: { point_id: bench.id } },
        body: { circuit: circuitId, name },
      }),
    ),
  );
  if (sites.length === 0)
    return (
      <Text>No site of this practice is on record yet. Add one under Site, with its board and circuit.</Text>
    );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (circuitId) save.mutate(undefined, { onSuccess: done });
      }}
    >
      <Stack>
        <NativeSelect
          label="Site"
          value={siteId}
          onChange={(event) => {
            setSite(event.currentTarget.value);
            setCircuit("");
          }}
          data={[{ value: "", label: "Choose one" }, ...sites.map((s) => ({ value: s.id, label: s.name }))]}
        />
        <NativeSelect
          label="Circuit"
          value={circuitId}
          onChange={(event) => setCircuit(event.currentTarget.value)}
          data={[{ value: "", label: site ? "Choose one" : "Choose a site first" }, ...circuits]}
        />
        <TextInput
          label="Name"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
          required
        />
        <Text className="quiet">
          What was read stays with it, and is judged by that circuit and its supply.
        </Text>
        <Unplaced error={save.error} />
        <Button type="submit" disabled={!circuitId} loading={save.isPending}>
          Put it there
        </Button>
      </Stack>
    </form>
  );
}
