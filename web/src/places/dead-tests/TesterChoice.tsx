import { NativeSelect } from "@mantine/core";
import type { SheetTester } from "../../api/client";

/** The tester in the hand for ohms, or for insulation, and why it would clear nothing where it would not. */
export function TesterChoice(props: {
  testers: SheetTester[];
  use: "ohms" | "insulation";
  value: string | null;
  onChange: (id: string | null) => void;
}) {
  const chosen = props.testers.find((t) => t.id === props.value);
  const why = chosen ? chosen.unfit[props.use] : "";
  return (
    <NativeSelect
      mt="sm"
      label="Tester in use"
      value={props.value ?? ""}
      onChange={(event) => props.onChange(event.currentTarget.value || null)}
      error={why || undefined}
      data={[
        { value: "", label: "Say which is in your hand" },
        ...props.testers.map((t) => ({
          value: t.id,
          label: t.unfit[props.use] ? `${t.label} (would not count)` : t.label,
        })),
      ]}
    />
  );
}
