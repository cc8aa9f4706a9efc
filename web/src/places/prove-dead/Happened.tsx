import { Button, Modal, NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import type { EventEntry, Proof } from "../../api/client";
import folds from "../../parts/Fold.module.css";
import classes from "./Happened.module.css";
import shared from "./Prove.module.css";
import { SourceForm } from "./SourceForm";
import type { Happens } from "./step";

type Asking = "source" | "unlocked" | "re-energised" | "handed-over" | null;

/** Whatever else happens, in or out of turn. Nothing is refused here; it only shows in how the proof stands. */
export function Happened(props: { proof: Proof; onHappened: Happens }) {
  const { proof } = props;
  const [asking, ask] = useState<Asking>(null);
  if (proof.state.state === "closed") return null;
  const happened = (entry: EventEntry) => {
    ask(null);
    props.onHappened(entry);
  };
  const detector = proof.testers.find((t) => t.screens);
  const screened = (alarm: boolean) => {
    ask(null);
    props.onHappened({ type: "screened", alarm }, detector?.id ?? null);
  };
  const line = (name: string, act: () => void) => (
    <Button key={name} variant="default" onClick={act}>
      {name}
    </Button>
  );
  return (
    <details className={folds.fold}>
      <summary>Something else happened</summary>
      <div className={classes.else}>
        {line("Another source found", () => ask("source"))}
        {line(`Screened${detector ? `, ${detector.label}` : ""}: silent`, () => screened(false))}
        {line(`Screened${detector ? `, ${detector.label}` : ""}: alarm`, () => screened(true))}
        {line("I am leaving", () => happened({ type: "left" }))}
        {line("I am here again", () => happened({ type: "returned" }))}
        {line("Hand over to another", () => ask("handed-over"))}
        {line("A lock was removed", () => ask("unlocked"))}
        {line("Switched on again", () => ask("re-energised"))}
        {line("Work done or moved on: close", () => happened({ type: "closed" }))}
      </div>
      <Modal opened={asking === "source"} onClose={() => ask(null)} title="Another source found">
        <SourceForm proof={proof} onHappened={happened} />
      </Modal>
      <Modal
        opened={asking === "unlocked" || asking === "re-energised"}
        onClose={() => ask(null)}
        title={asking === "unlocked" ? "Which lock was removed?" : "What was switched on again?"}
      >
        <WhichSource
          proof={proof}
          onPick={(source) =>
            (asking === "unlocked" || asking === "re-energised") && happened({ type: asking, source })
          }
        />
      </Modal>
      <Modal opened={asking === "handed-over"} onClose={() => ask(null)} title="Hand over to another">
        <HandOver onDone={(note) => happened({ type: "handed-over", ...(note && { note }) })} />
      </Modal>
    </details>
  );
}

function WhichSource({ proof, onPick }: { proof: Proof; onPick: (source: string) => void }) {
  const [source, setSource] = useState(proof.state.sources[0]?.id ?? "");
  return (
    <>
      <NativeSelect
        label="Source"
        value={source}
        onChange={(event) => setSource(event.currentTarget.value)}
        data={proof.state.sources.map((s) => ({ value: s.id, label: s.label }))}
      />
      <Button className={shared.main} onClick={() => onPick(source)}>
        This one: the proof ends
      </Button>
    </>
  );
}

function HandOver({ onDone }: { onDone: (to: string) => void }) {
  const [to, setTo] = useState("");
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onDone(to.trim());
      }}
    >
      <TextInput
        label="To whom"
        description="The proof ends here: whoever takes over proves it dead with their own hands."
        value={to}
        onChange={(event) => setTo(event.currentTarget.value)}
        data-autofocus
      />
      <Button type="submit" className={shared.main}>
        Hand over: the proof ends
      </Button>
    </form>
  );
}
