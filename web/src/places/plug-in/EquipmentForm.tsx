import { Button, Stack, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import client, { answer, type Equipment, type Refusal } from "../../api/client";
import { newId } from "../../api/ids";
import { Choice } from "../../parts/Choice";
import { Toggle } from "../../parts/Toggle";
import { Unplaced } from "../../parts/Unplaced";
import { useTyped } from "../../parts/useTyped";
import { typedNumber, typedOrNone } from "../../reading/typedNumber";

const PLACED = ["label", "volts_to_neutral", "volts_between_lines", "amperes", "hertz"];
const EMPTY = { label: "", to_neutral: "", between: "", amperes: "", hertz: "" };

/** What its plate says. */
export function EquipmentForm({ done }: { done: (made: Equipment) => void }) {
  const id = useRef(newId());
  const queries = useQueryClient();
  const [lines, setLines] = useState("1");
  const { typed, field } = useTyped(EMPTY);
  const [flags, setFlags] = useState({ earth: true, continuous: false });
  const several = lines !== "1";
  const save = useMutation<Equipment, Refusal>({
    mutationFn: () =>
      answer(
        client.PUT("/api/equipment/{equipment_id}", {
          params: { path: { equipment_id: id.current } },
          body: {
            label: typed.label,
            lines: Number(lines),
            amperes: typedNumber(typed.amperes) as number,
            volts_to_neutral: typedOrNone(typed.to_neutral),
            volts_between_lines: several ? typedOrNone(typed.between) : null,
            hertz: typedOrNone(typed.hertz),
            ...flags,
          },
        }),
      ),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ["equipment"] });
      done(made);
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <Stack>
        <TextInput label="What it is" required data-autofocus {...field("label", save.error, "label")} />
        <Choice
          label="Lines it is connected to"
          value={lines}
          onChange={setLines}
          data={["1", "2", "3"].map((n) => ({ value: n, label: n }))}
        />
        {several && (
          <TextInput
            label="Volts, line to line"
            inputMode="decimal"
            {...field("between", save.error, "volts_between_lines")}
          />
        )}
        <TextInput
          label="Volts, line to neutral"
          description={several ? "Empty where it uses no neutral" : undefined}
          inputMode="decimal"
          {...field("to_neutral", save.error, "volts_to_neutral")}
        />
        <TextInput
          label="Amperes it draws"
          inputMode="decimal"
          {...field("amperes", save.error, "amperes")}
        />
        <TextInput
          label="Frequency, Hz"
          description="Empty where any will do"
          inputMode="decimal"
          {...field("hertz", save.error, "hertz")}
        />
        <Toggle on={flags.earth} onToggle={() => setFlags({ ...flags, earth: !flags.earth })}>
          Has metal to touch: needs the earth
        </Toggle>
        <Toggle on={flags.continuous} onToggle={() => setFlags({ ...flags, continuous: !flags.continuous })}>
          Runs for three hours and more
        </Toggle>
        <Unplaced error={save.error} placed={PLACED} />
        <Button type="submit" loading={save.isPending}>
          Save
        </Button>
      </Stack>
    </form>
  );
}
