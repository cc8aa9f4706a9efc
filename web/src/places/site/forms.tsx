import { NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import client, { answer, type Practice, type Site, type Supply, type SupplyIn } from "../../api/client";
import { newId } from "../../api/ids";
import { useReference } from "../../api/queries";
import { SiteForm } from "./SiteForm";

/** A supply: a new one, or what is known of one that is there. */
export function SupplyForm(props: { siteId: string; practice: Practice; supply?: Supply; done: () => void }) {
  const { siteId, practice, supply, done } = props;
  const reference = useReference();
  const [id] = useState(() => supply?.id ?? newId());
  const empty = {
    name: supply?.name ?? "Mains",
    system: supply?.system ?? practice.systems[0]?.id ?? "",
    earthing: supply?.earthing ?? "TN-C-S",
  };
  const told = ({ name, system, earthing }: typeof empty) => ({
    params: { path: { supply_id: id } },
    body: {
      site: siteId,
      name,
      system: system as SupplyIn["system"],
      earthing: earthing as SupplyIn["earthing"],
    },
  });
  return (
    <SiteForm
      empty={empty}
      done={done}
      action={supply ? "Save the supply" : "Add the supply"}
      write={(typed) => answer(client.PUT("/api/supplies/{supply_id}", told(typed)))}
      effects={supply && ((typed) => answer(client.POST("/api/supplies/{supply_id}/effects", told(typed))))}
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

/** A board: a new one, or the name of one that is there. `word`: what it is called here. */
export function BoardForm(props: {
  supplyId: string;
  word: string;
  board?: { id: string; name: string };
  done: () => void;
}) {
  const { supplyId, word, board, done } = props;
  const [id] = useState(() => board?.id ?? newId());
  const empty = { name: board?.name ?? "" };
  return (
    <SiteForm
      empty={empty}
      done={done}
      action={`${board ? "Save" : "Add"} the ${word}`}
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

/** The name of a site that is there. */
export function SiteNameForm({ site, done }: { site: Site; done: () => void }) {
  return (
    <SiteForm
      empty={{ name: site.name }}
      done={done}
      action="Save the name"
      write={({ name }) =>
        answer(
          client.PUT("/api/sites/{site_id}", {
            params: { path: { site_id: site.id } },
            body: { name, practice: site.practice },
          }),
        )
      }
    >
      {(field) => <TextInput label="Name" required data-autofocus {...field("name")} />}
    </SiteForm>
  );
}
