import { Button, NativeSelect, Stack, Text, TextInput } from "@mantine/core";
import { type UseFormReturnType, useForm } from "@mantine/form";
import { type ReactNode, useState } from "react";
import client, {
  answer,
  type Circuit,
  type Practice,
  type Refusal,
  type Site,
  type Supply,
} from "../../api/client";
import { useReference, useSiteWrite } from "../../api/queries";
import { typedOrNone } from "../../parts/typedNumber";
import { contactChoices } from "./contacts";

type Values = Record<string, string>;

/** A form whose one write answers with the site; the server's problems land on the fields they name. */
function SiteForm<V extends Values>(props: {
  form: UseFormReturnType<V>;
  write: (values: V) => Promise<Site>;
  done: () => void;
  action: string;
  children: ReactNode;
}) {
  const save = useSiteWrite(props.write);
  const refused = (error: Refusal) => {
    for (const { path, text } of error.problems) {
      if (path in props.form.values) props.form.setFieldError(path, text);
    }
  };
  const unplaced = save.error?.problems.filter(({ path }) => !(path in props.form.values)) ?? [];
  return (
    <form
      onSubmit={props.form.onSubmit((values) =>
        save.mutate(values, { onSuccess: props.done, onError: refused }),
      )}
    >
      <Stack>
        {props.children}
        {unplaced.map(({ path, text }) => (
          <Text key={path + text} c="var(--ep-vermilion)" role="alert">
            {path ? `${path}: ${text}` : text}
          </Text>
        ))}
        <Button type="submit" loading={save.isPending}>
          {props.action}
        </Button>
      </Stack>
    </form>
  );
}

export function AddSupply({
  siteId,
  practice,
  done,
}: {
  siteId: string;
  practice: Practice;
  done: () => void;
}) {
  const reference = useReference();
  const [id] = useState(() => crypto.randomUUID());
  const form = useForm({
    initialValues: { name: "Mains", system: practice.systems[0]?.id ?? "", earthing: "TN-C-S" },
  });
  return (
    <SiteForm
      form={form}
      done={done}
      action="Add the supply"
      write={(v) =>
        answer(
          client.PUT("/api/supplies/{supply_id}", {
            params: { path: { supply_id: id } },
            body: { site: siteId, ...v },
          }),
        )
      }
    >
      <TextInput label="Name" required data-autofocus {...form.getInputProps("name")} />
      <NativeSelect
        label="System"
        data={practice.systems.map((s) => ({ value: s.id, label: `${s.title}, ${s.frequency_hz} Hz` }))}
        {...form.getInputProps("system")}
      />
      <NativeSelect
        label="Earthing"
        description="TN-C-S: neutral and earth joined once, at the origin. TN-S: separate back to the source. TT: its own electrode. IT: nothing joined."
        data={reference.data?.earthings ?? []}
        {...form.getInputProps("earthing")}
      />
    </SiteForm>
  );
}

export function AddBoard({ supplyId, word, done }: { supplyId: string; word: string; done: () => void }) {
  const [id] = useState(() => crypto.randomUUID());
  const form = useForm({ initialValues: { name: "" } });
  return (
    <SiteForm
      form={form}
      done={done}
      action={`Add the ${word}`}
      write={(v) =>
        answer(
          client.PUT("/api/boards/{board_id}", {
            params: { path: { board_id: id } },
            body: { supply: supplyId, ...v },
          }),
        )
      }
    >
      <TextInput label="Name" required data-autofocus {...form.getInputProps("name")} />
    </SiteForm>
  );
}

export function AddCircuit({ boardId, done }: { boardId: string; done: () => void }) {
  const reference = useReference();
  const [id] = useState(() => crypto.randomUUID());
  const form = useForm({
    initialValues: { name: "", rating_a: "", conductor: "", residual_ma: "", curve: "" },
  });
  return (
    <SiteForm
      form={form}
      done={done}
      action="Add the circuit"
      write={({ name, rating_a, conductor, residual_ma, curve }) =>
        answer(
          client.PUT("/api/circuits/{circuit_id}", {
            params: { path: { circuit_id: id } },
            body: {
              board: boardId,
              name,
              rating_a: typedOrNone(rating_a),
              conductor: conductor || null,
              residual_ma: typedOrNone(residual_ma),
              curve: curve || null,
            },
          }),
        )
      }
    >
      <TextInput label="Name" required data-autofocus {...form.getInputProps("name")} />
      <TextInput label="Device rating, A" inputMode="decimal" {...form.getInputProps("rating_a")} />
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
        {...form.getInputProps("conductor")}
      />
      <TextInput
        label="Residual-current device, mA"
        description="Empty where there is none"
        inputMode="decimal"
        {...form.getInputProps("residual_ma")}
      />
      <NativeSelect
        label="How its device trips at once"
        description="Decides how much a start-up current may be"
        data={[
          { value: "", label: "Not known" },
          ...(reference.data?.curves ?? []).map((curve) => ({
            value: curve,
            label: curve.replace("-", " "),
          })),
        ]}
        {...form.getInputProps("curve")}
      />
    </SiteForm>
  );
}

export function AddPoint(props: { circuit: Circuit; supply: Supply; practice: Practice; done: () => void }) {
  const { circuit, supply, practice, done } = props;
  const reference = useReference();
  const [id] = useState(() => crypto.randomUUID());
  const choices = contactChoices(practice.systems.find((s) => s.id === supply.system)?.lines ?? ["L"]);
  const form = useForm({
    initialValues: {
      name: "",
      kind: "outlet",
      terminals: Object.keys(choices)[0] ?? "",
      length_m: "",
      room: "",
    },
  });
  return (
    <SiteForm
      form={form}
      done={done}
      action="Add the point"
      write={({ name, kind, terminals, length_m, room }) =>
        answer(
          client.PUT("/api/points/{point_id}", {
            params: { path: { point_id: id } },
            body: {
              circuit: circuit.id,
              name,
              kind,
              terminals: choices[terminals] ?? [],
              length_m: typedOrNone(length_m),
              room,
            },
          }),
        )
      }
    >
      <TextInput
        label="Name"
        description="Where it is, in cable order"
        required
        data-autofocus
        {...form.getInputProps("name")}
      />
      <NativeSelect
        label="Kind"
        data={(reference.data?.point_kinds ?? []).map((kind) => ({
          value: kind,
          label: practice.words[kind] ?? kind.replace("-", " "),
        }))}
        {...form.getInputProps("kind")}
      />
      <NativeSelect label="Terminals" data={Object.keys(choices)} {...form.getInputProps("terminals")} />
      <TextInput
        label={`Cable from the ${practice.words.board}, m`}
        description="Sharpens what the readings can say"
        inputMode="decimal"
        {...form.getInputProps("length_m")}
      />
      <TextInput
        label="Room"
        description="For going round all outlets of a room, whatever circuit they are on"
        {...form.getInputProps("room")}
      />
    </SiteForm>
  );
}
