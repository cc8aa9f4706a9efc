import { Button, Stack, TextInput } from "@mantine/core";
import { useRef } from "react";
import client, { answer, type Equipment } from "../../api/client";
import { newId } from "../../api/ids";
import { EQUIPMENT } from "../../api/records";
import { Choice } from "../../parts/Choice";
import { Toggle } from "../../parts/Toggle";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";
import { typedNumber, typedOrNone } from "../../reading/typedNumber";

const EMPTY = {
  label: "",
  lines: "1",
  volts_to_neutral: "",
  volts_between_lines: "",
  amperes: "",
  hertz: "",
  earth: true,
  continuous: false,
};

const typedOf = (thing: Equipment): typeof EMPTY => ({
  label: thing.label,
  lines: String(thing.lines),
  volts_to_neutral: thing.volts_to_neutral?.toString() ?? "",
  volts_between_lines: thing.volts_between_lines?.toString() ?? "",
  amperes: String(thing.amperes),
  hertz: thing.hertz?.toString() ?? "",
  earth: thing.earth,
  continuous: thing.continuous,
});

/** What its plate says: of something new, or of a `thing` that is on record. */
export function EquipmentForm({ thing, done }: { thing?: Equipment; done: (made: Equipment) => void }) {
  const id = useRef(thing?.id ?? newId());
  const { form, save, write, placed } = useRecordForm(thing ? typedOf(thing) : EMPTY, EQUIPMENT, (v) =>
    answer(
      client.PUT("/api/equipment/{equipment_id}", {
        params: { path: { equipment_id: id.current } },
        body: {
          label: v.label,
          lines: Number(v.lines),
          amperes: typedNumber(v.amperes) as number,
          volts_to_neutral: typedOrNone(v.volts_to_neutral),
          volts_between_lines: v.lines === "1" ? null : typedOrNone(v.volts_between_lines),
          hertz: typedOrNone(v.hertz),
          earth: v.earth,
          continuous: v.continuous,
        },
      }),
    ),
  );
  const field = form.getInputProps;
  const several = form.values.lines !== "1";
  return (
    <form onSubmit={form.onSubmit(() => write(undefined, done))}>
      <Stack>
        <TextInput label="What it is" required data-autofocus {...field("label")} />
        <Choice
          label="Lines it is connected to"
          {...field("lines")}
          data={["1", "2", "3"].map((n) => ({ value: n, label: n }))}
        />
        {several && (
          <TextInput label="Volts, line to line" inputMode="decimal" {...field("volts_between_lines")} />
        )}
        <TextInput
          label="Volts, line to neutral"
          description={several ? "Empty where it uses no neutral" : undefined}
          inputMode="decimal"
          {...field("volts_to_neutral")}
        />
        <TextInput label="Amperes it draws" inputMode="decimal" {...field("amperes")} />
        <TextInput
          label="Frequency, Hz"
          description="Empty where any will do"
          inputMode="decimal"
          {...field("hertz")}
        />
        <Toggle on={form.values.earth} onToggle={() => form.setFieldValue("earth", (was) => !was)}>
          Has metal to touch: needs earth (ground)
        </Toggle>
        <Toggle on={form.values.continuous} onToggle={() => form.setFieldValue("continuous", (was) => !was)}>
          Runs for three hours and more
        </Toggle>
        <Unplaced error={save.error} placed={placed} />
        <Button type="submit" loading={save.isPending}>
          Save
        </Button>
      </Stack>
    </form>
  );
}
