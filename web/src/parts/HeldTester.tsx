import { NativeSelect } from "@mantine/core";
import type { Tester } from "../api/client";
import { rememberTester } from "../api/lastTester";

/** A meter that is not on record: what it shows is typed, and taken as a proved multimeter's. */
export const TYPED_METER = "Typed meter";

/** Which tester is in the hand: one on record, or one that is not. */
export function HeldTester(props: {
  testers: Tester[];
  held: Tester | undefined;
  onPick: (id: string | null) => void;
  description?: string;
  className?: string;
}) {
  const pick = (id: string | null) => {
    rememberTester("live", id);
    props.onPick(id);
  };
  return (
    <NativeSelect
      label="Tester in use"
      description={props.description}
      className={props.className}
      value={props.held?.id ?? ""}
      onChange={(event) => pick(event.currentTarget.value || null)}
      data={[
        { value: "", label: TYPED_METER },
        ...props.testers.map((t) => ({ value: t.id, label: t.label })),
      ]}
    />
  );
}
