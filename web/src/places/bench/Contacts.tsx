import { type Dispatch, memo, type RefObject, useCallback, useMemo } from "react";
import type { Bench, Practice, Reading } from "../../api/client";
import { Face, FEW_CONTACTS } from "../../parts/Face";
import { isAsIs, seen } from "../../reading/entry";
import { type Probes, probeHint } from "../../reading/probes";
import type { Change } from "../../reading/setup";
import classes from "./BenchPlace.module.css";
import { Pairs } from "./Pairs";

/** The contacts and where the probes are; of many contacts the pairs stand beside the picture. */
export const Contacts = memo(function Contacts(props: {
  bench: Bench;
  practice: Practice;
  what: string;
  probes: Probes;
  change: Dispatch<Change>;
  field: RefObject<HTMLInputElement | null>;
}) {
  const { bench, practice, what, probes, change, field } = props;
  const measured = useMemo(() => measuredPairs(bench.readings), [bench.readings]);
  const touch = useCallback((terminal: string) => change({ do: "contact", terminal }), [change]);
  const many = bench.terminals.length > FEW_CONTACTS;
  return (
    <section className={classes.face} aria-label="The point" data-many={many || undefined}>
      <h2 className="zone-title">Contacts</h2>
      <Face
        kind={bench.kind}
        practice={practice}
        terminals={bench.terminals}
        probes={probes}
        measured={measured}
        onContact={touch}
      />
      <p className={classes.hint}>{probeHint(what, probes, practice)}</p>
      {many && (
        <Pairs
          terminals={bench.terminals}
          practice={practice}
          measured={measured}
          probes={probes}
          onPair={(measuring, reference) => {
            change({ do: "pair", measuring, reference });
            field.current?.focus();
          }}
        />
      )}
    </section>
  );
});

/** The pairs measured as found, for the picture. */
const measuredPairs = (readings: Reading[]) =>
  readings
    .filter((r) => r.status === "counts" && isAsIs(r.entry))
    .map((r) => r.entry)
    .filter(
      (e) => e.from && e.to && (e.value !== undefined || e.at_least !== undefined || e.below !== undefined),
    )
    .map((e) => ({ from: e.from as string, to: e.to as string, text: seen(e).replace(" V", "") }));
