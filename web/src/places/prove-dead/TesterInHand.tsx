import { Button, NativeSelect } from "@mantine/core";
import { useParts } from "../../api/queries";
import folds from "../../parts/Fold.module.css";
import shared from "./Prove.module.css";
import type { StepProps } from "./step";
import classes from "./TesterInHand.module.css";

/** Nobody's tester is taken for granted: the one in the hand is named first. */
export function PickTester({ proof, change }: StepProps) {
  return (
    <>
      <h2>
        Which tester is <b>in your hand</b>?
      </h2>
      {proof.testers.length === 0 && (
        <p className={shared.wrong}>No tester in the kit yet. Add one under Kit.</p>
      )}
      {proof.testers.map((tester) => (
        <Button
          key={tester.id}
          fullWidth
          mt="xs"
          variant="default"
          onClick={() => change({ tester: tester.id })}
        >
          {tester.fit ? tester.label : `${tester.label} (cannot confirm safe)`}
        </Button>
      ))}
    </>
  );
}

/** Which tester, with which leads, and whether that is fit for this place; an unfit one may be used, and counts not. */
export function TesterInHand({ proof, hand, tester, change }: StepProps) {
  const parts = useParts().data ?? [];
  const of = (role: string) => parts.filter((p) => p.role === role);
  return (
    <div className={classes.inHand}>
      <NativeSelect
        label="Tester in use"
        value={tester?.id ?? ""}
        onChange={(event) => change({ tester: event.currentTarget.value })}
        data={proof.testers.map((t) => ({
          value: t.id,
          label: t.fit ? t.label : `${t.label} (cannot confirm safe)`,
        }))}
      />
      {tester && (
        <p className={tester.fit ? shared.note : classes.unfit}>
          {tester.fit
            ? `${[tester.rating, ...tester.warnings].filter(Boolean).join(" · ")}. Fit for this.`
            : `Not fit here, kept but not counted: ${tester.problems.join("; ")}.`}
        </p>
      )}
      <details className={folds.fold}>
        <summary>Other leads or an adapter</summary>
        <NativeSelect
          label="Leads"
          value={hand.leads ?? ""}
          onChange={(event) => change({ leads: event.currentTarget.value || null })}
          data={[
            { value: "", label: "Its usual leads" },
            ...of("leads").map((p) => ({ value: p.id, label: p.label })),
          ]}
        />
        <NativeSelect
          label="Adapter"
          value={hand.adapters[0] ?? ""}
          onChange={(event) =>
            change({ adapters: event.currentTarget.value ? [event.currentTarget.value] : [] })
          }
          data={[
            { value: "", label: "None" },
            ...of("adapter").map((p) => ({ value: p.id, label: p.label })),
          ]}
        />
      </details>
    </div>
  );
}
