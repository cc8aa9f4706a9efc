import { Button, NativeSelect, Stack, TextInput } from "@mantine/core";
import { useRef, useState } from "react";
import client, { answer, type OutletLine } from "../../api/client";
import { newId } from "../../api/ids";
import { useReference, useSitesInUse } from "../../api/queries";
import { OUTLET } from "../../api/records";
import { wordOf } from "../../api/reference";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";
import { typedOrNone } from "../../reading/typedNumber";
import { contactChoices } from "../site/contacts";

const NEW = "new";

/** Where it is, which contacts it has, and what is known or supposed of what feeds it. */
export function StrangeOutlet({ done }: { done: (made: OutletLine) => void }) {
  const sites = useSitesInUse();
  const reference = useReference();
  const ids = useRef({ point: newId(), site: newId() });
  const [site, setSite] = useState(NEW);
  const [practiceId, setPractice] = useState("");
  const [systemId, setSystem] = useState("");
  const [contacts, setContacts] = useState("");
  const known = sites.data?.find((s) => s.id === site);
  const practices = reference.data?.practices ?? [];
  const practice = practices.find((p) => p.id === (known?.practice ?? practiceId)) ?? practices[0];
  const system = practice?.systems.find((s) => s.id === systemId) ?? practice?.systems[0];
  const choices = contactChoices(practice, system?.id ?? "");
  const chosen = contacts in choices ? contacts : (Object.keys(choices)[0] ?? "");
  const { form, save, write, placed } = useRecordForm(
    { place: "", name: "", rating_a: "", residual_ma: "" },
    OUTLET,
    async (typed) => {
      if (!practice || !system) throw new Error("the tables are loaded before any place");
      return answer(
        client.PUT("/api/outlets/{point_id}", {
          params: { path: { point_id: ids.current.point } },
          body: {
            site: known ? known.id : ids.current.site,
            new_site: known ? null : { name: typed.place, practice: practice.id },
            supply: { system: system.id, earthing: "TN-S" },
            outlet: {
              name: typed.name,
              terminals: choices[chosen] ?? [],
              rating_a: typedOrNone(typed.rating_a),
              residual_ma: typedOrNone(typed.residual_ma),
            },
          },
        }),
      );
    },
  );
  return (
    <form onSubmit={form.onSubmit(() => write(undefined, done))}>
      <Stack>
        <NativeSelect
          label="Site"
          value={site}
          onChange={(event) => setSite(event.currentTarget.value)}
          data={[
            { value: NEW, label: "A place not on record" },
            ...(sites.data ?? []).map((s) => ({ value: s.id, label: s.name })),
          ]}
        />
        {!known && (
          <>
            <TextInput label="Name of the place" required {...form.getInputProps("place")} />
            <NativeSelect
              label="Practice"
              value={practice?.id ?? ""}
              onChange={(event) => setPractice(event.currentTarget.value)}
              data={practices.map((p) => ({ value: p.id, label: p.name }))}
            />
          </>
        )}
        <TextInput label="Name of the outlet" required {...form.getInputProps("name")} />
        <NativeSelect
          label="Supply it should be"
          description="What its label or its shape says. The readings will say what it reads like."
          value={system?.id ?? ""}
          onChange={(event) => setSystem(event.currentTarget.value)}
          data={(practice?.systems ?? []).map((s) => ({
            value: s.id,
            label: `${s.title}, ${s.frequency_hz} Hz`,
          }))}
        />
        <NativeSelect
          label="Contacts"
          value={chosen}
          onChange={(event) => setContacts(event.currentTarget.value)}
          data={Object.keys(choices)}
        />
        <TextInput
          label="Device rating, A"
          description="Empty where it cannot be read"
          inputMode="decimal"
          {...form.getInputProps("rating_a")}
        />
        <TextInput
          label={`${practice ? wordOf(practice, "residual-current device") : "Residual-current device"}, mA`}
          description="Empty where there is none, or none can be seen"
          inputMode="decimal"
          {...form.getInputProps("residual_ma")}
        />
        <Unplaced error={save.error} placed={placed} />
        <Button type="submit" loading={save.isPending}>
          Save
        </Button>
      </Stack>
    </form>
  );
}
