import { Button, Stack, TextInput } from "@mantine/core";
import { useState } from "react";
import client, { answer, type Part, type PartIn } from "../../api/client";
import { newId } from "../../api/ids";
import { KIT } from "../../api/records";
import { useMay } from "../../api/session";
import { Choice } from "../../parts/Choice";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";
import { typedOrNone } from "../../reading/typedNumber";
import { RatingFields } from "./RatingFields";

/** Leads or an adapter: what is printed on it, and how it is. */
export function PartForm({ of, part, done }: { of: PartIn["role"]; part?: Part; done: () => void }) {
  const [id] = useState(() => part?.id ?? newId());
  const leads = of === "leads";
  const { form, save, write, placed } = useRecordForm(
    {
      label: part?.label ?? "",
      category: part?.category ?? "",
      rated_v: part?.rated_v ? String(part.rated_v) : "",
      tip_covers: part?.tip_covers === true ? "on" : part?.tip_covers === false ? "off" : "",
      damage: part?.damage ? "yes" : "no",
    },
    KIT,
    (v, retired: boolean) =>
      answer(
        client.PUT("/api/parts/{part_id}", {
          params: { path: { part_id: id } },
          body: {
            role: of,
            label: v.label,
            category: (v.category || null) as PartIn["category"],
            rated_v: typedOrNone(v.rated_v),
            tip_covers: leads && v.tip_covers ? v.tip_covers === "on" : null,
            damage: v.damage === "yes",
            ohm: part?.ohm ?? null,
            retired,
          },
        }),
      ),
  );
  const may = useMay("retire");
  const keep = (retired: boolean) => write(retired, done);
  return (
    <form onSubmit={form.onSubmit(() => keep(false))}>
      <Stack>
        <TextInput label="Name" required data-autofocus {...form.getInputProps("label")} />
        <RatingFields category={form.getInputProps("category")} volts={form.getInputProps("rated_v")} />
        {leads && (
          <Choice
            label="Tip covers"
            data={[
              { value: "", label: "Not known" },
              { value: "on", label: "On" },
              { value: "off", label: "Off" },
            ]}
            {...form.getInputProps("tip_covers")}
          />
        )}
        <Choice
          label="Damaged"
          data={[
            { value: "no", label: "No" },
            { value: "yes", label: "Yes" },
          ]}
          {...form.getInputProps("damage")}
        />
        <Unplaced error={save.error} placed={placed} />
        <Button type="submit" loading={save.isPending}>
          {part ? "Keep the changes" : leads ? "Add the leads" : "Add the adapter"}
        </Button>
        {part && may && (
          <Button variant="default" disabled={save.isPending} onClick={() => keep(true)}>
            Take out of the register
          </Button>
        )}
      </Stack>
    </form>
  );
}
