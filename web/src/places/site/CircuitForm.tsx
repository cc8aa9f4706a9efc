import { NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import client, { answer, type Circuit, type Practice } from "../../api/client";
import { newId } from "../../api/ids";
import { useReference } from "../../api/queries";
import { wordOf } from "../../api/reference";
import { typedOrNone } from "../../reading/typedNumber";
import { SiteForm } from "./SiteForm";

/** A circuit and its device: a new one, or what is known of one that is there. */
export function CircuitForm(props: {
  boardId: string;
  practice: Practice;
  circuit?: Circuit;
  done: () => void;
}) {
  const { circuit, boardId, practice, done } = props;
  const reference = useReference();
  const [id] = useState(() => circuit?.id ?? newId());
  const empty = {
    name: circuit?.name ?? "",
    rating_a: circuit?.rating_a?.toString() ?? "",
    conductor: circuit?.conductor ?? "",
    residual_ma: circuit?.residual_ma?.toString() ?? "",
    curve: circuit?.curve ?? "",
  };
  const told = ({ name, rating_a, conductor, residual_ma, curve }: typeof empty) => ({
    params: { path: { circuit_id: id } },
    body: {
      board: boardId,
      name,
      rating_a: typedOrNone(rating_a),
      conductor: conductor || null,
      residual_ma: typedOrNone(residual_ma),
      curve: curve || null,
    },
  });
  return (
    <SiteForm
      empty={empty}
      done={done}
      action={circuit ? "Save the circuit" : "Add the circuit"}
      write={(typed) => answer(client.PUT("/api/circuits/{circuit_id}", told(typed)))}
      effects={circuit && ((typed) => answer(client.POST("/api/circuits/{circuit_id}/effects", told(typed))))}
    >
      {(field) => (
        <>
          <TextInput label="Name" required data-autofocus {...field("name")} />
          <TextInput label="Device rating, A" inputMode="decimal" {...field("rating_a")} />
          <NativeSelect
            label="Conductor"
            description="What is not known is left open, and every size is reckoned with"
            data={[
              { value: "", label: "Not known" },
              ...(reference.data?.conductors ?? []).map((size) => ({
                value: size,
                label: size.replace("mm2", "mm²"),
              })),
            ]}
            {...field("conductor")}
          />
          <TextInput
            label={`${wordOf(practice, "residual-current device")}, mA`}
            description="Empty where there is none"
            inputMode="decimal"
            {...field("residual_ma")}
          />
          <NativeSelect
            label="Trip curve"
            description="Decides how much a start-up current may be"
            data={[
              { value: "", label: "Not known" },
              ...(reference.data?.curves ?? []).map((curve) => ({
                value: curve,
                label: curve.replace("-", " "),
              })),
            ]}
            {...field("curve")}
          />
        </>
      )}
    </SiteForm>
  );
}
