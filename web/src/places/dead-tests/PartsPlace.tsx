import { NativeSelect, TextInput } from "@mantine/core";
import { useDebouncedValue } from "@mantine/hooks";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import client, { answer, type PartCheck, type Refusal } from "../../api/client";
import { useReference, useSheetReference } from "../../api/queries";
import { Page } from "../../parts/Page";
import { typedNumber } from "../../parts/typedNumber";
import { OpensChoice } from "./OpensChoice";
import { Outcome } from "./Outcome";
import classes from "./PartsPlace.module.css";

type Field = { key: string; label: string; unit: string };

const NEEDS: Record<string, Field> = {
  printed_uf: { key: "printed_uf", label: "Printed on it", unit: "µF" },
  rated_v: { key: "rated_v", label: "Rated voltage", unit: "V" },
  rated_w: { key: "rated_w", label: "Rated power", unit: "W" },
};
const READS: Record<string, Field[]> = {
  "closed-contact": [{ key: "closed_ohm", label: "Closed, it reads", unit: "Ω" }],
  capacitor: [{ key: "measured_uf", label: "It reads", unit: "µF" }],
  battery: [{ key: "volts", label: "It reads", unit: "V" }],
  coil: [{ key: "measured_v", label: "Across it", unit: "V" }],
  element: [{ key: "measured_ohm", label: "It reads", unit: "Ω" }],
  "temperature-sensor": [
    { key: "t1", label: "First, the thermometer", unit: "°C" },
    { key: "s1", label: "First, the sensor", unit: "°C" },
    { key: "t2", label: "Second, the thermometer", unit: "°C" },
    { key: "s2", label: "Second, the sensor", unit: "°C" },
  ],
};
const OVER_RANGE: Record<string, string> = {
  "closed-contact": "closed_over_range",
  capacitor: "over_range",
  element: "over_range",
  coil: "over_range",
};
const OPENS = ["switch", "breaker"];
const TYPING_MS = 150;

/** A part checked alone: what to set, what to expect, and what it comes to. */
export function PartsPlace() {
  const reference = useSheetReference();
  const practices = useReference().data?.practices ?? [];
  const [id, choose] = useState("fuse");
  const [practice, setPractice] = useState("");
  const check = reference.data?.checks.find((c) => c.id === id);
  const where = practice || (practices[0]?.id ?? "");
  return (
    <Page title="Check a part" back={["/dead-tests", "Dead tests"]} busy={reference.isPending}>
      <div className={classes.columns}>
        <nav aria-label="Parts" className={classes.parts}>
          {reference.data?.checks.map((c) => (
            <button
              key={c.id}
              type="button"
              aria-current={c.id === id || undefined}
              onClick={() => choose(c.id)}
            >
              {c.title}
            </button>
          ))}
          <NativeSelect
            mt="sm"
            label="Practice"
            value={where}
            onChange={(event) => setPractice(event.currentTarget.value)}
            data={practices.map((p) => ({ value: p.id, label: p.name }))}
          />
        </nav>
        {check && <Check key={check.id} check={check} practice={where} />}
      </div>
    </Page>
  );
}

function Check({ check, practice }: { check: PartCheck; practice: string }) {
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [opens, setOpens] = useState<string | undefined>();
  const needs = check.needs.map((key) => NEEDS[key] as Field);
  const reads = READS[check.kind] ?? [];
  const figures: Record<string, number> = {};
  for (const { key } of needs) {
    const number = typedNumber(typed[key] ?? "");
    if (typeof number === "number") figures[key] = number;
  }
  const advice = useQuery({
    queryKey: ["advice", check.id, figures],
    queryFn: () => answer(client.POST("/api/advise", { body: { check: check.id, figures } })),
    placeholderData: keepPreviousData,
  });
  const [test] = useDebouncedValue(wholeTest(check, typed, opens), TYPING_MS);
  const judged = useQuery({
    queryKey: ["part", practice, test],
    queryFn: () => answer(client.POST("/api/judge", { body: { practice, test: test ?? {} } })),
    enabled: test !== null && practice !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
  const refused = judged.error as Refusal | null;
  const field = ({ key, label, unit }: Field) => (
    <TextInput
      key={key}
      mt="sm"
      label={`${label}, ${unit}`}
      inputMode="decimal"
      value={typed[key] ?? ""}
      error={refused?.problems.find((p) => p.path.startsWith(key))?.text}
      onChange={(event) => setTyped({ ...typed, [key]: event.currentTarget.value })}
    />
  );
  return (
    <section aria-label={check.title} className={classes.check}>
      <h2>{check.title}</h2>
      <p className={classes.first}>{check.first}</p>
      <div className={classes.two}>
        <div>
          {needs.map(field)}
          {OPENS.includes(check.id) && <OpensChoice value={opens} onChange={setOpens} />}
          {reads.map(field)}
          {OVER_RANGE[check.kind] && <p className="quiet">OL, or a lone 1, is typed as OL.</p>}
        </div>
        <dl className={classes.set}>
          <dt>Set the meter to</dt>
          <dd>
            {check.function}, <span className="quiet">{check.jack}</span>
          </dd>
          <dt>Range, on a manual meter</dt>
          <dd className="mono">{advice.data?.range_says}</dd>
          <dt>Expect</dt>
          <dd>
            {check.expect}
            {advice.data?.expected != null && check.needs.length > 0 && (
              <span className="mono">
                {" "}
                About {advice.data.expected} {check.unit === "ohm" ? "Ω" : check.unit}.
              </span>
            )}
          </dd>
          <dt>Over-range there</dt>
          <dd>{advice.data?.over_range}</dd>
        </dl>
      </div>
      <div aria-live="polite">
        {test !== null && judged.data && !refused && <Outcome judged={judged.data} />}
      </div>
    </section>
  );
}

function wholeTest(check: PartCheck, typed: Record<string, string>, opens?: string) {
  const test: Record<string, unknown> = { kind: check.kind, ...check.presets };
  const said = (key: string) => typed[key]?.trim() ?? "";
  for (const key of check.needs) {
    if (said(key) === "") return null;
    test[key] = typedNumber(said(key));
  }
  if (opens !== undefined) test.open_over_range = opens === "over-range";
  if (check.kind === "temperature-sensor") {
    const pairs = [
      ["t1", "s1"],
      ["t2", "s2"],
    ].filter((pair) => pair.every((key) => said(key) !== ""));
    if (pairs.length === 0) return null;
    return { ...test, pairs: pairs.map((pair) => pair.map((key) => typedNumber(said(key)))) };
  }
  const [reading] = READS[check.kind] ?? [];
  const shown = reading ? said(reading.key) : "";
  if (reading && /^ol$/i.test(shown)) return { ...test, [OVER_RANGE[check.kind] ?? reading.key]: true };
  if (reading && shown !== "") return { ...test, [reading.key]: typedNumber(shown) };
  return opens === undefined ? null : test;
}
