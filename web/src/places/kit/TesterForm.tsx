import { Button, NativeSelect, Stack, TextInput } from "@mantine/core";
import { useState } from "react";
import client, { answer, type Tester, type TesterIn } from "../../api/client";
import { newId } from "../../api/ids";
import { useParts, useReference } from "../../api/queries";
import { KIT } from "../../api/records";
import { useMay } from "../../api/session";
import { Choice } from "../../parts/Choice";
import folds from "../../parts/Fold.module.css";
import { Toggle } from "../../parts/Toggle";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";
import { typedNumber, typedOrNone } from "../../reading/typedNumber";
import classes from "./Kit.module.css";
import { RatingFields } from "./RatingFields";

/** Three answers: yes, no, and not known. */
const KNOWN = [
  { value: "", label: "Not known" },
  { value: "yes", label: "Yes" },
  { value: "no", label: "No" },
];
const answered = (value: unknown) => (value === true ? "yes" : value === false ? "no" : "");
const meant = (value: string) => (value === "" ? null : value === "yes");

const numbers = (typed: string) =>
  typed.trim() === ""
    ? null
    : typed
        .split(/[\s;]+|,\s+/)
        .filter(Boolean)
        .map((part) => typedNumber(part) as number);

const NUMBERS: [keyof TesterIn & string, string, string][] = [
  ["input_ohm", "Input, Ω", "10 MΩ shows ghosts"],
  ["accuracy_percent", "Accuracy, % of reading", ""],
  ["accuracy_counts", "and counts of the display", ""],
  ["resolution", "Resolution, V", "its last digit"],
  ["test_ma", "Test current, mA", "of a trip button or a load"],
];

export function TesterForm({ tester, done }: { tester?: Tester; done: () => void }) {
  const reference = useReference().data;
  const leads = (useParts().data ?? []).filter((p) => p.role === "leads");
  const [id] = useState(() => tester?.id ?? newId());
  const entry = tester?.entry ?? {};
  const listed = (value: unknown) => (Array.isArray(value) ? value.join(" ") : "");
  const text = (value: unknown) => (value === null || value === undefined ? "" : String(value));
  const { form, save, write, placed } = useRecordForm(
    {
      label: text(entry.label),
      kind: text(entry.kind) || (reference?.kinds[0]?.id ?? ""),
      category: text(entry.category),
      rated_v: text(entry.rated_v),
      usual_leads: text(tester?.usual_leads),
      steps_v: listed(entry.steps_v),
      test_v: listed(entry.test_v),
      functions: Array.isArray(entry.functions) ? (entry.functions as string[]) : ([] as string[]),
      calibration_due: text(entry.calibration_due),
      known_issue: text(entry.known_issue),
      always_on_light: answered(entry.always_on_light),
      damage: answered(entry.damage),
      fuse: text(entry.fuse),
      input_ohm: text(entry.input_ohm),
      accuracy_percent: text(entry.accuracy_percent),
      accuracy_counts: text(entry.accuracy_counts),
      resolution: text(entry.resolution),
      test_ma: text(entry.test_ma),
    },
    KIT,
    (v, retired: boolean) => {
      const body: TesterIn = {
        label: v.label,
        kind: v.kind as TesterIn["kind"],
        proved: entry.proved as boolean | undefined,
        category: (v.category || null) as TesterIn["category"],
        rated_v: typedOrNone(v.rated_v),
        usual_leads: v.usual_leads || null,
        steps_v: numbers(v.steps_v),
        test_v: numbers(v.test_v),
        functions: v.functions.length ? v.functions : null,
        calibration_due: v.calibration_due || null,
        known_issue: v.known_issue || null,
        always_on_light: meant(v.always_on_light),
        damage: meant(v.damage),
        fuse: v.fuse || null,
        input_ohm: typedOrNone(v.input_ohm),
        accuracy_percent: typedOrNone(v.accuracy_percent),
        accuracy_counts: typedOrNone(v.accuracy_counts),
        resolution: typedOrNone(v.resolution),
        test_ma: typedOrNone(v.test_ma),
        retired,
      };
      return answer(client.PUT("/api/testers/{tester_id}", { params: { path: { tester_id: id } }, body }));
    },
  );
  const may = useMay("retire");
  const keep = (retired: boolean) => write(retired, done);
  return (
    <form onSubmit={form.onSubmit(() => keep(false))}>
      <Stack>
        <TextInput
          label="Name"
          description="As it is marked"
          required
          data-autofocus
          {...form.getInputProps("label")}
        />
        <NativeSelect
          label="Kind"
          data={reference?.kinds.map((k) => ({ value: k.id, label: k.name })) ?? []}
          {...form.getInputProps("kind")}
        />
        <RatingFields category={form.getInputProps("category")} volts={form.getInputProps("rated_v")} />
        <NativeSelect
          label="Its usual leads"
          data={[
            { value: "", label: "Fixed, or none" },
            ...leads.map((p) => ({ value: p.id, label: p.label })),
          ]}
          {...form.getInputProps("usual_leads")}
        />
        <TextInput label="Calibration due" type="date" {...form.getInputProps("calibration_due")} />
        <TextInput
          label="Known issue"
          description="It cannot confirm safe until that is repaired, such as: gives no alarm if the button is held at switch-on"
          {...form.getInputProps("known_issue")}
        />
        <details className={folds.fold}>
          <summary>Functions, steps, accuracy and the rest</summary>
          <Stack mt="sm">
            <fieldset className={classes.functions}>
              <legend>Functions</legend>
              {reference?.register_functions.map((name) => (
                <Toggle
                  key={name}
                  on={form.values.functions.includes(name)}
                  onToggle={() =>
                    form.setFieldValue("functions", (was) =>
                      was.includes(name) ? was.filter((f) => f !== name) : [...was, name],
                    )
                  }
                >
                  {name.replace("-", " ")}
                </Toggle>
              ))}
            </fieldset>
            <TextInput
              label="Lamp steps, V"
              description="As 12 50 120 230"
              {...form.getInputProps("steps_v")}
            />
            <TextInput label="Insulation test voltages, V DC" {...form.getInputProps("test_v")} />
            {NUMBERS.map(([key, label, description]) => (
              <TextInput
                key={key}
                label={label}
                description={description || undefined}
                inputMode="decimal"
                {...form.getInputProps(key)}
              />
            ))}
            <Choice
              data={KNOWN}
              label="A light that is always on"
              {...form.getInputProps("always_on_light")}
            />
            <Choice data={KNOWN} label="Damaged" {...form.getInputProps("damage")} />
            <NativeSelect
              label="Ampere fuse"
              data={[
                { value: "", label: "Not known" },
                { value: "ok", label: "Whole" },
                { value: "blown", label: "Blown" },
              ]}
              {...form.getInputProps("fuse")}
            />
          </Stack>
        </details>
        <Unplaced error={save.error} placed={placed} />
        <Button type="submit" loading={save.isPending}>
          {tester ? "Keep the changes" : "Add the tester"}
        </Button>
        {tester && may && (
          <Button variant="default" disabled={save.isPending} onClick={() => keep(true)}>
            Take it out of the register
          </Button>
        )}
      </Stack>
    </form>
  );
}
