import { Button } from "@mantine/core";
import { useRef } from "react";
import client, { answer, type Sheet } from "../../api/client";
import { PHOTO } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Choice } from "../../parts/Choice";
import { Unplaced } from "../../parts/Unplaced";
import { smaller } from "./picture";
import classes from "./Sheet.module.css";
import type { PutDown } from "./usePutDown";

/** Before any meter: what is wrong can often be seen. A picture can be kept beside what was. */
export function Look({ sheet, putDown }: { sheet: Sheet; putDown: PutDown }) {
  return (
    <ul className={classes.look}>
      {sheet.look.map((item) => (
        <LookLine key={item.id} item={item} putDown={putDown} />
      ))}
    </ul>
  );
}

/** A picture, known by what tells one file from another. */
type Picture = { taken: File; name: string; size: number; modified: number };

function LookLine({ item, putDown }: { item: Sheet["look"][number]; putDown: PutDown }) {
  const file = useRef<HTMLInputElement>(null);
  const said = (good: boolean, photo: string | null = item.photo) =>
    putDown.mutate({
      entry: { type: "looked", item: item.id, good, ...(photo ? { photo } : {}) },
      supersedes: item.entry ?? undefined,
    });
  const keep = useRecord(PHOTO, async ({ taken }: Picture, { id }) =>
    answer(
      client.PUT("/api/photos/{photo_id}", {
        params: { path: { photo_id: id } },
        body: { image: await smaller(taken) },
      }),
    ),
  );
  const keepPicture = (taken: File) =>
    keep.mutate(
      { taken, name: taken.name, size: taken.size, modified: taken.lastModified },
      { onSuccess: (photo) => said(item.good ?? false, photo.id) },
    );
  return (
    <li>
      <span className={classes.lookTitle} id={`look-${item.id}`}>
        {item.title}
      </span>
      <Choice
        label={item.title}
        hideLabel
        value={item.good === null ? undefined : item.good ? "good" : "bad"}
        onChange={(value) => said(value === "good")}
        data={[
          { value: "good", label: "Good" },
          { value: "bad", label: "Not good" },
        ]}
      />
      <input
        ref={file}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label={`Picture, ${item.title}`}
        onChange={(event) => {
          const taken = event.currentTarget.files?.[0];
          if (taken) keepPicture(taken);
          event.currentTarget.value = "";
        }}
      />
      <Button variant="subtle" loading={keep.isPending} onClick={() => file.current?.click()}>
        {item.photo ? "Another picture" : "Picture"}
      </Button>
      {item.photo && (
        <a className={classes.photo} href={`/api/photos/${item.photo}`} target="_blank" rel="noreferrer">
          <img src={`/api/photos/${item.photo}`} alt={`${item.title}, as it was seen`} />
        </a>
      )}
      <Unplaced error={keep.error} />
    </li>
  );
}
