import { Button } from "@mantine/core";
import { useRef, useState } from "react";
import type { Sheet } from "../../api/client";
import { Choice } from "../../parts/Choice";
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

function LookLine({ item, putDown }: { item: Sheet["look"][number]; putDown: PutDown }) {
  const file = useRef<HTMLInputElement>(null);
  const [unread, setUnread] = useState(false);
  const last = putDown.unsent.findLast((entry) => entry.type === "looked" && entry.item === item.id);
  const good = last?.good ?? item.good;
  const said = (good: boolean, photo = last?.photo ?? item.photo) =>
    putDown.put(
      { type: "looked", item: item.id, good, ...(photo ? { photo } : {}) },
      `${item.title}: ${good ? "good" : "not good"}${photo ? ", with a picture" : ""}`,
      { supersedes: last?.id ?? item.entry },
    );
  const keepPicture = async (taken: File) => {
    setUnread(false);
    const image = await smaller(taken).catch(() => null);
    if (image === null) setUnread(true);
    else said(good ?? false, putDown.keepPhoto({ image }, `Picture, ${item.title}`));
  };
  return (
    <li>
      <span className={classes.lookTitle} id={`look-${item.id}`}>
        {item.title}
      </span>
      <Choice
        label={item.title}
        hideLabel
        value={good === null ? undefined : good ? "good" : "bad"}
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
          if (taken) void keepPicture(taken);
          event.currentTarget.value = "";
        }}
      />
      <Button variant="subtle" onClick={() => file.current?.click()}>
        {item.photo || last?.photo ? "Another picture" : "Picture"}
      </Button>
      {item.photo && (
        <a className={classes.photo} href={`/api/photos/${item.photo}`} target="_blank" rel="noreferrer">
          <img src={`/api/photos/${item.photo}`} alt={`${item.title}, as it was seen`} />
        </a>
      )}
      {unread && (
        <p className={classes.wrong} role="alert">
          That is no picture this browser can read. Take another.
        </p>
      )}
    </li>
  );
}
