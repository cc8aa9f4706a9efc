import { NativeSelect } from "@mantine/core";
import { memo } from "react";
import type { Tester } from "../api/client";
import { CASE } from "../api/sandbox";

const TYPED_METER = { value: "", label: "Typed meter, proved" };
const NOT_SAID = { value: "?", label: "Which tester?" };

/** What there is to choose from; a meter that is not on record is taken as a proved multimeter, and says so: in a case there is none. */
const toChoose = (testers: Tester[], named: boolean) => [
  ...(named ? [] : [NOT_SAID]),
  ...(CASE === null ? [TYPED_METER] : []),
  ...testers.map((t) => ({ value: t.id, label: t.label })),
];

/** Which tester is in the hand, once a person says so. `withoutLabel`: its name is for whoever cannot see it. */
export const HeldTester = memo(function HeldTester(props: {
  testers: Tester[];
  held: string | null;
  named: boolean;
  onName: (id: string | null) => void;
  description?: string;
  className?: string;
  withoutLabel?: boolean;
}) {
  const { testers, held, named } = props;
  const name = "Tester in use";
  return (
    <NativeSelect
      {...(props.withoutLabel ? { "aria-label": name } : { label: name })}
      description={props.description}
      className={props.className}
      value={named ? (held ?? TYPED_METER.value) : NOT_SAID.value}
      onChange={(event) => {
        const { value } = event.currentTarget;
        if (value !== NOT_SAID.value) props.onName(value || null);
      }}
      data={toChoose(testers, named)}
    />
  );
});
