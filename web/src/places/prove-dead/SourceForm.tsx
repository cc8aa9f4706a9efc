import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import type { EventEntry, Proof } from "../../api/client";
import { newId } from "../../api/ids";
import { useProofReference } from "../../api/queries";
import shared from "./Prove.module.css";
import classes from "./SourceForm.module.css";
import { KIND_WORDS } from "./words";

/** A source found late: its name and kind, or that a known one was not off after all. */
export function SourceForm(props: { proof: Proof; onHappened: (entry: EventEntry) => void }) {
  const { proof, onHappened } = props;
  const questions = useProofReference().data?.questions ?? [];
  const [id] = useState(() => newId());
  const [label, setLabel] = useState("");
  const [kind, setKind] = useState<EventEntry["kind"]>("second-feed");
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onHappened({ type: "source-found", source: id, label: label.trim(), kind });
      }}
    >
      <h2>
        Find <b>what feeds it</b>
      </h2>
      <p className={shared.how}>
        Something reaches these conductors that is not off. Name it; it joins the sources.
      </p>
      <NativeSelect
        label="What it is"
        value={kind}
        onChange={(event) => setKind(event.currentTarget.value as EventEntry["kind"])}
        data={[
          ...questions.map((q) => ({ value: q.kind, label: KIND_WORDS[q.kind] ?? q.kind })),
          { value: "device", label: KIND_WORDS.device ?? "" },
        ]}
      />
      <TextInput
        label="Its name and where it is switched"
        required
        value={label}
        onChange={(event) => setLabel(event.currentTarget.value)}
      />
      <Button type="submit" className={shared.main}>
        Add this source
      </Button>
      {proof.state.sources.map((source) => (
        <Button
          key={source.id}
          fullWidth
          variant="default"
          className={classes.wrap}
          onClick={() => onHappened({ type: "off", source: source.id })}
        >
          {source.label} was not off; now it is
        </Button>
      ))}
    </form>
  );
}
