import { NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import client, { answer, type Circuit, type PointLine, type Practice, type Supply } from "../../api/client";
import { newId } from "../../api/ids";
import { useReference } from "../../api/queries";
import { wordOf } from "../../api/reference";
import { typedOrNone } from "../../reading/typedNumber";
import { contactChoices } from "./contacts";
import { SiteForm } from "./SiteForm";

const AS_RECORDED = "As recorded";

/** A point of a circuit: a new one, or what is known of one that is there. */
export function PointForm(props: {
  circuit: Circuit;
  supply: Supply;
  practice: Practice;
  point?: PointLine;
  done: () => void;
}) {
  const { circuit, supply, practice, point, done } = props;
  const reference = useReference();
  const [id] = useState(() => point?.id ?? newId());
  const recorded: Record<string, string[]> = point ? { [AS_RECORDED]: point.terminals } : {};
  const choices = { ...recorded, ...contactChoices(practice, supply.system) };
  const inUnit = practice.length_unit === "ft" ? "length_ft" : "length_m";
  const empty = {
    name: point?.name ?? "",
    kind: point?.kind ?? "outlet",
    terminals: Object.keys(choices)[0] ?? "",
    length: point?.[inUnit]?.toString() ?? "",
    room: point?.room ?? "",
  };
  const told = ({ name, kind, terminals, length, room }: typeof empty) => ({
    params: { path: { point_id: id } },
    body: {
      circuit: circuit.id,
      name,
      kind,
      terminals: choices[terminals] ?? [],
      [inUnit]: typedOrNone(length),
      room,
    },
  });
  return (
    <SiteForm
      empty={empty}
      names={{ length_m: "length", length_ft: "length" }}
      done={done}
      action={point ? "Save the point" : "Add the point"}
      write={(typed) => answer(client.PUT("/api/points/{point_id}", told(typed)))}
      effects={point && ((typed) => answer(client.POST("/api/points/{point_id}/effects", told(typed))))}
    >
      {(field) => (
        <>
          <TextInput
            label="Name"
            description="Where it is, in cable order"
            required
            data-autofocus
            {...field("name")}
          />
          <NativeSelect
            label="Kind"
            data={(reference.data?.point_kinds ?? []).map((kind) => ({
              value: kind,
              label: wordOf(practice, kind).replace("-", " "),
            }))}
            {...field("kind")}
          />
          <NativeSelect label="Terminals" data={Object.keys(choices)} {...field("terminals")} />
          <TextInput
            label={`Cable from the ${wordOf(practice, "board")}, ${practice.length_unit}`}
            description="Sharpens what the readings can say"
            inputMode="decimal"
            {...field("length")}
          />
          <TextInput
            label="Room"
            description="For going round all outlets of a room, whatever circuit they are on"
            {...field("room")}
          />
        </>
      )}
    </SiteForm>
  );
}
