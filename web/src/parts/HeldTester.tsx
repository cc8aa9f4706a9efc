import { NativeSelect } from "@mantine/core";
import type { Tester } from "../api/client";

/** Which tester is in the hand; a crew without any is taken to hold a proved multimeter. */
export function HeldTester(props: {
  testers: Tester[];
  held: Tester | undefined;
  onPick: (id: string) => void;
  description?: string;
  className?: string;
}) {
  return (
    <NativeSelect
      label="Tester in use"
      description={props.description}
      className={props.className}
      value={props.held?.id ?? ""}
      onChange={(event) => props.onPick(event.currentTarget.value)}
      data={
        props.testers.length
          ? props.testers.map((t) => ({ value: t.id, label: t.label }))
          : [{ value: "", label: "A proved multimeter" }]
      }
    />
  );
}
