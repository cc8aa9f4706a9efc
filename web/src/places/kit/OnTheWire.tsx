import { Button, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import client, { answer } from "../../api/client";
import { useLinks } from "../../api/queries";

/** Where a tester with a link answers; empty takes it off the wire. */
export function OnTheWire({ testerId }: { testerId: string }) {
  const links = useLinks();
  const cache = useQueryClient();
  const known = links.data?.links.find((link) => link.tester === testerId)?.address ?? "";
  const [address, setAddress] = useState(known);
  useEffect(() => setAddress(known), [known]);
  const save = useMutation({
    mutationFn: () =>
      answer(
        client.PUT("/api/testers/{tester_id}/link", {
          params: { path: { tester_id: testerId } },
          body: { address },
        }),
      ),
    onSuccess: (after) => cache.setQueryData(["meters"], after),
  });
  const problems = save.error && "problems" in save.error ? (save.error.problems as { text: string }[]) : [];
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
        error={problems.map((p) => p.text).join(" ") || (save.isError && "Not saved. Try again.")}
      />
      <Button type="submit" variant="default" mt="xs" disabled={address === known} loading={save.isPending}>
        {known && !address ? "Take it off the wire" : "Save the address"}
      </Button>
    </form>
  );
}
