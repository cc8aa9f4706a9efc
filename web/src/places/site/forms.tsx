import { NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import client, { answer, type Practice, type SupplyIn } from "../../api/client";
import { newId } from "../../api/ids";
import { useReference } from "../../api/queries";
import { SiteForm } from "./SiteForm";

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
  const [id] = useState(() => newId());
  const empty = { name: "Mains", system: practice.systems[0]?.id ?? "", earthing: "TN-C-S" };
  return (
    <SiteForm
      empty={empty}
      done={done}
      action="Add the supply"
      write={(v) =>
        answer(
          client.PUT("/api/supplies/{supply_id}", {
            params: { path: { supply_id: id } },
            body: {
              site: siteId,
              name: v.name,
              system: v.system as SupplyIn["system"],
              earthing: v.earthing as SupplyIn["earthing"],
            },
          }),
        )
      }
    >
      {(field) => (
        <>
          <TextInput label="Name" required data-autofocus {...field("name")} />
          <NativeSelect
            label="System"
            data={practice.systems.map((s) => ({ value: s.id, label: `${s.title}, ${s.frequency_hz} Hz` }))}
            {...field("system")}
          />
          <NativeSelect
            label="Earthing"
            description="TN-C-S: neutral and earth joined once, at the origin. TN-S: separate back to the source. TT: its own electrode. IT: nothing joined."
            data={reference.data?.earthings ?? []}
            {...field("earthing")}
          />
        </>
      )}
    </SiteForm>
  );
}

export function AddBoard({ supplyId, word, done }: { supplyId: string; word: string; done: () => void }) {
  const [id] = useState(() => newId());
  const empty = { name: "" };
  return (
    <SiteForm
      empty={empty}
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
      {(field) => (
        <>
          <TextInput label="Name" required data-autofocus {...field("name")} />
        </>
      )}
    </SiteForm>
  );
}
