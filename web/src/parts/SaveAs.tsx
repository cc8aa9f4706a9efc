import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import type { Refusal } from "../api/client";
import { saveFile } from "./files";
import { Unplaced } from "./Unplaced";

/** Saves what the server gives as a file on this device, and says why where it cannot. */
export function SaveAs(props: {
  kind: string;
  name: string;
  fetch: () => Promise<object>;
  className?: string;
}) {
  const save = useMutation<void, Refusal>({
    mutationFn: async () => saveFile(await props.fetch(), props.name),
  });
  return (
    <div className={props.className}>
      <Button variant="default" loading={save.isPending} onClick={() => save.mutate()}>
        Save as {props.kind}
      </Button>
      <Unplaced error={save.error} />
    </div>
  );
}
