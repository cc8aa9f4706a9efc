import { Button, Text } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import type { Entry, Practice, Quick, Tester } from "../../api/client";
import { useKeep } from "../../api/outbox/useOutbox";
import type { ReadingBody, Waiting } from "../../api/outbox/waiting";
import { CASE } from "../../api/sandbox";
import { Face } from "../../parts/Face";
import { NumberField } from "../../parts/NumberField";
import { usePutBack } from "../../parts/usePutBack";
import { WaitingList } from "../../parts/WaitingList";
import { ends, seen } from "../../reading/entry";
import { functionNamed, functionOf } from "../../reading/functions";
import { typedNumber } from "../../reading/typedNumber";
import { Display } from "../practice/Display";
import { Choices, choicesFor } from "./Choices";
import { Lamps } from "./Lamps";
import classes from "./QuickSet.module.css";

/** The quick set of an outlet, one measurement after the other: where the probes go, one number, Enter. */
export function QuickSet(props: {
  point: { id: string; name: string; kind: string; terminals: string[] };
  practice: Practice;
  tester: Tester | undefined;
  /** Whose readings they are, though it may have left the register since. */
  testerId: string | null;
  quick: Quick[];
}) {
  const { point, practice, tester, quick } = props;
  const measured = quick.filter((q) => !isPressed(q));
  const [again, setAgain] = useState<string | null>(null);
  const [typed, setTyped] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const { keep, waiting } = useKeep("reading", point.id, point.name);
  const isWaiting = (q: Quick) => waiting.taken.some((one) => one.typed === keyOf(q));
  const wanted =
    measured.find((q) => keyOf(q) === again) ?? measured.find((q) => q.entry === null && !isWaiting(q));
  const key = wanted && keyOf(wanted);
  useEffect(() => {
    if (key) field.current?.focus();
  }, [key]);
  const putBack = (one: Waiting) => {
    waiting.outbox.drop(one.id);
    setAgain(one.typed as string);
    const { value } = (one.body as ReadingBody).entry;
    const before = typeof value === "number" || typeof value === "string" ? String(value) : "";
    setTyped(before);
    field.current?.focus();
    return before;
  };
  const [wrong, clearWrong] = usePutBack(waiting.list, typed, putBack);
  if (measured.length === 0)
    return (
      <Text className={classes.none}>
        This tester has no contacts for this outlet. Measure it on the Bench with a meter.
      </Text>
    );
  const send = (what: Partial<Entry>) => {
    if (!wanted) return;
    clearWrong();
    const entry = entryFor(wanted, what);
    const body = { entry, tester: props.testerId, supersedes: wanted.reading };
    keep(body, `${ends(wanted, practice)}, ${seen(entry)}`, keyOf(wanted));
    setTyped("");
    setAgain(null);
  };
  const steps = tester?.stepped ?? false;
  const values = measured.flatMap((q) =>
    q.entry && q.from && q.to ? [{ from: q.from, to: q.to, text: seen(q.entry).replace(" V", "") }] : [],
  );
  return (
    <div className={classes.set} data-done={wanted === undefined || undefined}>
      <div className={classes.face}>
        <Face
          kind={point.kind}
          withoutReference
          practice={practice}
          terminals={point.terminals}
          probes={{ measuring: wanted?.from ?? null, reference: wanted?.to ?? null }}
          measured={values}
          onContact={(terminal) => {
            const next = measured.filter((q) => q.from === terminal || q.to === terminal);
            const after = next[(next.findIndex((q) => keyOf(q) === key) + 1) % next.length];
            if (after) setAgain(keyOf(after));
          }}
        />
      </div>
      <div className={classes.taking}>
        {wanted && (
          <form
            onSubmit={(event) => {
              event.preventDefault();
              if (typed.trim() === "") field.current?.focus();
              else send({ value: typedNumber(typed), unit: "V" });
            }}
          >
            <p className={classes.pair}>
              <b>{ends(wanted, practice)}</b>
              {wanted.entry && (
                <span className="quiet"> instead of {seen(wanted.entry)}, which stays on record</span>
              )}
            </p>
            {CASE !== null && (
              <Display
                entry={entryFor(wanted, {})}
                tester={props.testerId}
                point={point.id}
                ready={props.testerId !== null}
                onCapture={send}
              />
            )}
            {functionOf({ quantity: wanted.quantity })?.entered === "lamps" ? (
              <Lamps
                practice={practice}
                terminals={point.terminals}
                ready
                onRecord={(value) => send({ value })}
              />
            ) : steps ? (
              <Choices
                choices={choicesFor(functionNamed("steps"), tester)}
                ready
                onPick={(what) => send({ ...what, unit: "V" })}
              />
            ) : (
              <div className={classes.entry}>
                <NumberField
                  field={field}
                  label={`Reading, ${ends(wanted, practice)}`}
                  value={typed}
                  onChange={setTyped}
                  wrong={wrong ? "quick-error" : null}
                  autoFocus
                >
                  <span className={classes.unit}>V</span>
                </NumberField>
                <Button
                  type="submit"
                  variant={CASE === null ? "filled" : "default"}
                  className={classes.record}
                >
                  Record
                </Button>
              </div>
            )}
          </form>
        )}
        {wrong && (
          <Text id="quick-error" role="alert" className={classes.wrong}>
            {wrong}
          </Text>
        )}
        <WaitingList waiting={waiting} onPutBack={putBack} />
        <ul className={classes.pairs} aria-label="The quick set">
          {measured.map((q) => (
            <li key={keyOf(q)}>
              <button
                type="button"
                data-here={q === wanted || undefined}
                aria-current={q === wanted || undefined}
                onClick={() => setAgain(keyOf(q))}
              >
                <b>{ends(q, practice)}</b>
                <span className="mono">
                  {isWaiting(q) ? "on its way" : q.entry ? seen(q.entry) : "to measure"}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}

const keyOf = (q: Quick) => `${q.quantity} ${q.from} ${q.to}`;

/** What somebody presses a button for, and another watches: it comes after everything that is measured. */
export const isPressed = (quick: Pick<Quick, "quantity">) =>
  functionOf({ quantity: quick.quantity })?.entered === "pick";

function entryFor(quick: Quick, what: Partial<Entry>): Entry {
  const f = functionOf({ quantity: quick.quantity });
  const probes = f?.probes === "none" ? {} : { from: quick.from ?? "", to: quick.to ?? "" };
  return { quantity: quick.quantity, ...f?.fixes, ...probes, ...what };
}
