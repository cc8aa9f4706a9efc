import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useRef } from "react";
import { useNavigate, useSearchParams } from "react-router";
import client, { answer } from "../../api/client";
import { newId } from "../../api/ids";
import { usePractice, useSheetReference, useSheets } from "../../api/queries";
import { SHEET } from "../../api/records";
import { Choice } from "../../parts/Choice";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";
import { typedOrNone } from "../../reading/typedNumber";
import classes from "./Sheet.module.css";

/** Which circuit, how it is wired, how warm it is. */
export function BeginSheet() {
  const sheets = useSheets();
  const reference = useSheetReference();
  const navigate = useNavigate();
  const [asked] = useSearchParams();
  const id = useRef(newId());
  const { form, save, write, placed } = useRecordForm(
    { circuit: asked.get("circuit") ?? "", wiring: "ordinary", temperature_c: "", ring: "no" },
    SHEET,
    ({ circuit, wiring, temperature_c, ring }) =>
      answer(
        client.PUT("/api/sheets/{sheet_id}", {
          params: { path: { sheet_id: id.current } },
          body: { circuit, wiring, ring: ring === "yes", temperature_c: typedOrNone(temperature_c) },
        }),
      ),
  );
  const circuits = sheets.data?.circuits ?? [];
  const practice = usePractice(circuits.find((c) => c.id === form.values.circuit)?.practice);
  if (sheets.isError && !sheets.data) return <Failure error={sheets.error} retry={() => sheets.refetch()} />;
  return (
    <Page title="Begin a sheet" back={["/dead-tests", "Dead tests"]} busy={sheets.isPending}>
      <form
        className={classes.form}
        onSubmit={form.onSubmit(() => write(undefined, (sheet) => navigate(`/dead-tests/${sheet.id}`)))}
      >
        <NativeSelect
          mt="sm"
          label="Circuit"
          {...form.getInputProps("circuit")}
          data={[
            { value: "", label: "Choose a circuit" },
            ...circuits.map((c) => ({ value: c.id, label: `${c.name} (${c.site}, ${c.board})` })),
          ]}
        />
        <NativeSelect
          mt="sm"
          label="How it is wired"
          description="Decides the insulation test's voltage."
          {...form.getInputProps("wiring")}
          data={(reference.data?.wirings ?? []).map((w) => ({ value: w.id, label: w.title }))}
        />
        {practice?.ring_circuits && (
          <Choice
            label="A ring circuit"
            {...form.getInputProps("ring")}
            data={[
              { value: "no", label: "No" },
              { value: "yes", label: "Yes" },
            ]}
          />
        )}
        <TextInput
          mt="sm"
          label="Temperature of the conductors, °C"
          description="Left empty, 20 °C is assumed and every result says so."
          inputMode="decimal"
          {...form.getInputProps("temperature_c")}
        />
        <Unplaced error={save.error} placed={placed} />
        <Button
          type="submit"
          className={classes.main}
          disabled={form.values.circuit === ""}
          loading={save.isPending}
        >
          Begin
        </Button>
      </form>
    </Page>
  );
}
