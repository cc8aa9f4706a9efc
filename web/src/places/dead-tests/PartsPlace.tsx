import { NativeSelect } from "@mantine/core";
import { useDebouncedValue } from "@mantine/hooks";
import { keepPreviousData, skipToken, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import client, { answer, type PartCheck, type Practice, type Refusal } from "../../api/client";
import { keys } from "../../api/keys";
import { useReference, useSheetReference } from "../../api/queries";
import { Page } from "../../parts/Page";
import { sign } from "../../reading/entry";
import { type FormField, fieldsOf, mainFigure, type TypedTest, testOf } from "../../reading/tested";
import { typedNumber } from "../../reading/typedNumber";
import { Outcome } from "./Outcome";
import classes from "./PartsPlace.module.css";
import { TestFields } from "./TestFields";

const TYPING_MS = 150;

/** A part checked alone: what to set, what to expect, and what it comes to. */
export function PartsPlace() {
  const reference = useSheetReference();
  const practices = useReference().data?.practices ?? [];
  const [id, choose] = useState("");
  const [practice, setPractice] = useState<Practice["id"]>();
  const check = reference.data?.checks.find((c) => c.id === id) ?? reference.data?.checks[0];
  const where = practice ?? practices[0]?.id;
  return (
    <Page title="Check a part" back={["/dead-tests", "Dead tests"]} busy={reference.isPending}>
      <div className={classes.columns}>
        <nav aria-label="Parts" className={classes.parts}>
          {reference.data?.checks.map((c) => (
            <button
              key={c.id}
              type="button"
              aria-current={c.id === check?.id || undefined}
              onClick={() => choose(c.id)}
            >
              {c.title}
            </button>
          ))}
          <NativeSelect
            mt="sm"
            label="Practice"
            value={where}
            onChange={(event) => setPractice(event.currentTarget.value as Practice["id"])}
            data={practices.map((p) => ({ value: p.id, label: p.name }))}
          />
        </nav>
        {check && <Check key={check.id} check={check} practice={where} />}
      </div>
    </Page>
  );
}

function Check({ check, practice }: { check: PartCheck; practice: Practice["id"] | undefined }) {
  const [typed, setTyped] = useState<TypedTest>({});
  const fields = fieldsOf(check.kind, check.leaves_out);
  const main = mainFigure(fields);
  const figures: Record<string, number> = {};
  for (const key of check.needs) {
    const number = typedNumber(typed[key] ?? "");
    if (typeof number === "number") figures[key] = number;
  }
  const advice = useQuery({
    queryKey: keys.advice(check.id, figures),
    queryFn: () => answer(client.POST("/api/advise", { body: { check: check.id, figures } })),
    placeholderData: keepPreviousData,
  });
  const [test] = useDebouncedValue(wholeTest(check, fields, typed), TYPING_MS);
  const judged = useQuery({
    queryKey: keys.part(practice, test),
    queryFn:
      practice && test ? () => answer(client.POST("/api/judge", { body: { practice, test } })) : skipToken,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const refused = judged.error as Refusal | null;
  return (
    <section aria-label={check.title} className={classes.check}>
      <h2>{check.title}</h2>
      <p className={classes.first}>{check.first}</p>
      <div className={classes.two}>
        <div>
          <TestFields
            fields={fields}
            typed={typed}
            onType={(key, value) => setTyped({ ...typed, [key]: value })}
            wrong={(key) => refused?.problems.find((p) => p.path.startsWith(key))?.text}
          />
          {main?.over_range && <p className="quiet">OL, or a lone 1, is typed as OL.</p>}
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
                About {advice.data.expected} {sign(check.unit)}.
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

function wholeTest(check: PartCheck, fields: FormField[], typed: TypedTest) {
  const test = testOf(fields, typed);
  return test && { kind: check.kind, ...check.presets, ...test };
}
