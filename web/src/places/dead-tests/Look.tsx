import type { Sheet } from "../../api/client";
import { Choice } from "../../parts/Choice";
import { PictureButton } from "../../parts/PictureButton";
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
  const last = putDown.unsent.findLast((entry) => entry.type === "looked" && entry.item === item.id);
  const good = last?.good ?? item.good;
  const said = (good: boolean, photo = last?.photo ?? item.photo) =>
    putDown.put(
      { type: "looked", item: item.id, good, ...(photo ? { photo } : {}) },
      `${item.title}: ${good ? "good" : "not good"}${photo ? ", with a picture" : ""}`,
      { supersedes: last?.id ?? item.entry },
    );
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
      <PictureButton
        of={item.title}
        another={Boolean(item.photo || last?.photo)}
        onTaken={(image) => said(good ?? false, putDown.keepPhoto({ image }, `Picture, ${item.title}`))}
      />
      {item.photo && (
        <a className={classes.photo} href={`/api/photos/${item.photo}`} target="_blank" rel="noreferrer">
          <img src={`/api/photos/${item.photo}`} alt={`${item.title}, as it was seen`} />
        </a>
      )}
    </li>
  );
}
