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
      label="Tester in hand"
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

/** The one to begin with: a multimeter that is not known to fail. */
export const usualOf = (testers: Tester[]) =>
  testers.find((t) => t.kind === "multimeter" && t.proved !== false) ?? testers[0];
