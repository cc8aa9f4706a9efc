import { Button, FileButton, NativeSelect, Stack, Text } from "@mantine/core";
import { useState } from "react";
import { useNavigate } from "react-router";
import client, { answer } from "../../api/client";
import { newId } from "../../api/ids";
import { useSite, useSites } from "../../api/queries";
import { PROOF } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { readFile } from "../../parts/files";
import classes from "./Prove.module.css";

/** An isolation log from a file, as a proof of the supply it was made on. */
export function BringIn() {
  const sites = useSites().data ?? [];
  const navigate = useNavigate();
  const [id, setId] = useState(() => newId());
  const [chosen, choose] = useState<string | null>(null);
  const siteId = chosen ?? sites[0]?.id;
  const supplies = useSite(siteId).data?.supplies ?? [];
  const [picked, pick] = useState<string | null>(null);
  const supply = supplies.find((s) => s.id === picked) ?? supplies[0];
  const bringIn = useRecord(PROOF, async (file: File) =>
    answer(
      client.PUT("/api/proofs/{proof_id}/log", {
        params: { path: { proof_id: id } },
        body: { supply: supply?.id ?? "", log: await readFile(file) },
      }),
    ),
  );
  return (
    <Stack>
      <Text>
        It is kept as history, with your name as who brought it. It proves nothing here, and nothing is added
        to it.
      </Text>
      <NativeSelect
        label="Site"
        value={siteId}
        onChange={(event) => choose(event.currentTarget.value)}
        data={sites.map((s) => ({ value: s.id, label: s.name }))}
      />
      <NativeSelect
        label="Supply"
        value={supply?.id ?? ""}
        onChange={(event) => pick(event.currentTarget.value)}
        data={supplies.map((s) => ({ value: s.id, label: `${s.name}, ${s.system_title}` }))}
      />
      {bringIn.error && (
        <Text className={classes.wrong} role="alert">
          Nothing was brought in. {bringIn.error.message}
        </Text>
      )}
      <FileButton
        accept="application/json"
        onChange={(file) => {
          if (!file) return;
          bringIn.mutate(file, { onSuccess: (proof) => navigate(`/prove-dead/${proof.id}`) });
          setId(newId());
        }}
      >
        {(props) => (
          <Button {...props} disabled={!supply} loading={bringIn.isPending}>
            Choose the file
          </Button>
        )}
      </FileButton>
    </Stack>
  );
}
