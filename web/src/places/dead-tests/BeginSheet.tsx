import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import client, { answer, type Refusal, type Sheet } from "../../api/client";
import { newId } from "../../api/ids";
import { usePractice, useSheetReference, useSheets } from "../../api/queries";
import { Choice } from "../../parts/Choice";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { Unplaced } from "../../parts/Unplaced";
import { typedOrNone } from "../../reading/typedNumber";
import classes from "./Sheet.module.css";

const PLACED = ["circuit", "wiring", "temperature_c"];

/** Which circuit, how it is wired, how warm it is. */
export function BeginSheet() {
  const sheets = useSheets();
  const reference = useSheetReference();
  const navigate = useNavigate();
  const [asked] = useSearchParams();
  const id = useRef(newId());
  const [circuit, setCircuit] = useState(asked.get("circuit") ?? "");
  const [wiring, setWiring] = useState("ordinary");
  const [temperature, setTemperature] = useState("");
  const [ring, setRing] = useState("no");
  const circuits = sheets.data?.circuits ?? [];
  const practice = usePractice(circuits.find((c) => c.id === circuit)?.practice);
  const begin = useMutation<Sheet, Refusal>({
    mutationFn: () =>
      answer(
        client.PUT("/api/sheets/{sheet_id}", {
          params: { path: { sheet_id: id.current } },
          body: { circuit, wiring, ring: ring === "yes", temperature_c: typedOrNone(temperature) },
        }),
      ),
    onSuccess: (sheet) => navigate(`/dead-tests/${sheet.id}`),
  });
  if (sheets.isError && !sheets.data) return <Failure error={sheets.error} retry={() => sheets.refetch()} />;
  const wrong = (path: string) => begin.error?.problems.find((p) => p.path.startsWith(path))?.text;
  return (
    <Page title="Begin a sheet" back={["/dead-tests", "Dead tests"]} busy={sheets.isPending}>
      <form
        className={classes.form}
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate();
        }}
      >
        <NativeSelect
          mt="sm"
          label="Circuit"
          value={circuit}
          onChange={(event) => setCircuit(event.currentTarget.value)}
          error={wrong("circuit")}
          data={[
            { value: "", label: "Choose a circuit" },
            ...circuits.map((c) => ({ value: c.id, label: `${c.name} (${c.site}, ${c.board})` })),
          ]}
        />
        <NativeSelect
          mt="sm"
          label="How it is wired"
          description="Decides the insulation test's voltage."
          value={wiring}
          onChange={(event) => setWiring(event.currentTarget.value)}
          error={wrong("wiring")}
          data={(reference.data?.wirings ?? []).map((w) => ({ value: w.id, label: w.title }))}
        />
        {practice?.ring_circuits && (
          <Choice
            label="A ring circuit"
            value={ring}
            onChange={setRing}
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
          value={temperature}
          onChange={(event) => setTemperature(event.currentTarget.value)}
          error={wrong("temperature_c")}
        />
        <Unplaced error={begin.error} placed={PLACED} />
        <Button type="submit" className={classes.main} disabled={circuit === ""} loading={begin.isPending}>
          Begin
        </Button>
      </form>
    </Page>
  );
}
