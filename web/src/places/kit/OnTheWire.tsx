import { Button, TextInput } from "@mantine/core";
import { useEffect, useState } from "react";
import client, { answer } from "../../api/client";
import { useLinks } from "../../api/queries";
import { LINKS } from "../../api/records";
import { useRecord } from "../../api/useRecord";

/** Where a tester with a link answers; empty takes it off the wire. */
export function OnTheWire({ testerId }: { testerId: string }) {
  const links = useLinks();
  const known = links.data?.links.find((link) => link.tester === testerId)?.address ?? "";
  const [address, setAddress] = useState(known);
  useEffect(() => setAddress(known), [known]);
  const save = useRecord(LINKS, () =>
    answer(
      client.PUT("/api/testers/{tester_id}/link", {
        params: { path: { tester_id: testerId } },
        body: { address },
      }),
    ),
  );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <TextInput
        label="Address of its link"
        description="SCPI over a socket or a serial port. What it shows can then be captured at the Bench."
        placeholder="TCPIP::192.0.2.7::5025::SOCKET"
        value={address}
        onChange={(event) => setAddress(event.currentTarget.value)}
        error={save.error?.problems.map((p) => p.text).join(" ")}
      />
      <Button type="submit" variant="default" mt="xs" disabled={address === known} loading={save.isPending}>
        {known && !address ? "Take it off the wire" : "Save the address"}
      </Button>
    </form>
  );
}
