import { Button, NativeSelect, Text, TextInput } from "@mantine/core";
import { type Dispatch, memo, type ReactNode, type RefObject, useRef } from "react";
import type { Bench, Entry, Practice, Tester } from "../../api/client";
import { useIsShown } from "../../api/practice";
import { CASE } from "../../api/sandbox";
import { HeldTester } from "../../parts/HeldTester";
import { NumberField } from "../../parts/NumberField";
import { Toggle } from "../../parts/Toggle";
import { ends, seen, sign } from "../../reading/entry";
import { functionNamed, isPicked } from "../../reading/functions";
import { contactName } from "../../reading/probes";
import { isOnReference } from "../../reading/referenceEarth";
import {
  type Change,
  entryFor,
  functionsHere,
  hasBoardEnd,
  isReady,
  isTyped,
  type Setup,
} from "../../reading/setup";
import { Display } from "../practice/Display";
import { Capabilities } from "./Capabilities";
import { Choices, choicesFor } from "./Choices";
import { ClampedHow } from "./ClampedHow";
import { EarthChoice } from "./EarthChoice";
import { Lamps } from "./Lamps";
import { LivePanel } from "./LivePanel";
import { Loads } from "./Loads";
import classes from "./ReadingPanel.module.css";
import { SweepEntry } from "./SweepEntry";
import { useLiveMeter } from "./useLiveMeter";

/** What is in the hand, the number, its circumstances, and Record. */
export function ReadingPanel(props: {
  bench: Bench;
  practice: Practice;
  testers: Tester[];
  setup: Setup;
  change: Dispatch<Change>;
  field: RefObject<HTMLInputElement | null>;
  wrong: string;
  /** Whether it is said which tester is in the hand. */
  named: boolean;
  onName: (tester: string | null) => void;
  waiting: ReactNode;
  onRecord: (what?: Partial<Entry>) => void;
}) {
  const { bench, practice, testers, setup, change, wrong } = props;
  const tester = testers.find((t) => t.id === setup.tester);
  const what = functionNamed(setup.what);
  const why = bench.unfit[tester?.id ?? ""]?.[what.quantity];
  const corrected = bench.readings.find((r) => r.id === setup.correcting);
  const { measuring, reference } = setup.probes;
  const ready = isReady(setup, props.named);
  const meter = useLiveMeter(bench.id, setup);
  const picked = isPicked(what);
  const isShown = useIsShown();
  const enter = useRef<(() => void) | null>(null);
  const warning = what.fixes.input === "low-z" ? bench.may_trip[tester?.id ?? ""] : undefined;
  return (
    <>
      <div className={classes.hand}>
        <HeldTester
          withoutLabel
          testers={testers}
          held={setup.tester}
          named={props.named}
          onName={props.onName}
        />
        <FunctionChoice functions={bench.functions} tester={tester?.id} what={setup.what} change={change} />
        <span className={classes.rating} data-unfit={why || !props.named ? true : undefined}>
          {!props.named
            ? "Say which tester is in your hand: nothing can be recorded before."
            : !tester && "taken as a proved multimeter, not on record"}
          {tester && (why ? `Saved, does not count here: ${why}` : ratingOf(tester))}
        </span>
        {tester && isShown && (
          <Capabilities pointId={bench.id} tester={tester} readings={bench.readings.length} />
        )}
        {warning && <span className={classes.rating}>Low impedance: {warning}.</span>}
      </div>
      <form
        className={classes.panel}
        onSubmit={(event) => {
          event.preventDefault();
          if (picked) return;
          if (ready && isTyped(setup)) props.onRecord();
          else if (enter.current) enter.current();
          else props.field.current?.focus();
        }}
      >
        <div className={classes.pair}>
          <Pair setup={setup} practice={practice} />
          {corrected && (
            <span className={classes.correcting}>
              Corrects {seen(corrected.entry)}
              <Button size="compact-md" variant="subtle" onClick={() => change({ do: "stop correcting" })}>
                Leave it
              </Button>
            </span>
          )}
        </div>
        {CASE === null ? (
          meter && <LivePanel meter={meter} onCapture={props.onRecord} />
        ) : (
          <Display
            entry={entryFor(setup, bench.terminals, {})}
            tester={setup.tester}
            point={bench.id}
            ready={ready}
            onCapture={props.onRecord}
            enter={enter}
          />
        )}
        {what.entered === "lamps" ? (
          <Lamps
            practice={practice}
            terminals={bench.terminals}
            ready={ready}
            onRecord={(value) => props.onRecord({ value })}
          />
        ) : what.entered === "walk" ? (
          <SweepEntry
            key={bench.readings.length}
            ready={ready}
            onRecord={(sweep) => props.onRecord({ sweep })}
          />
        ) : picked ? (
          <>
            {what.timed && (
              <TextInput
                label="After, ms, if the tester timed it"
                inputMode="decimal"
                value={setup.typed}
                onChange={(event) => change({ do: "type", typed: event.currentTarget.value })}
              />
            )}
            <Choices choices={choicesFor(what, tester, setup.typed)} ready={ready} onPick={props.onRecord} />
          </>
        ) : (
          <NumberField
            field={props.field}
            label={`Reading, ${what.probes === "none" ? what.name : ends({ from: setup.probes.measuring ?? "", to: setup.probes.reference ?? "" }, practice)}`}
            value={setup.typed}
            onChange={(typed) => change({ do: "type", typed })}
            wrong={wrong ? "reading-error" : null}
            autoFocus
          >
            <select
              aria-label="Unit"
              className={classes.unit}
              value={setup.unit}
              onChange={(event) => change({ do: "unit", unit: event.currentTarget.value })}
            >
              {what.units.map((unit) => (
                <option key={unit} value={unit}>
                  {sign(unit)}
                </option>
              ))}
            </select>
          </NumberField>
        )}
        {wrong && (
          <Text id="reading-error" role="alert" className={classes.wrong}>
            {wrong}
          </Text>
        )}
        <div className={classes.circumstances}>
          {what.reference && isOnReference(measuring, reference) && (
            <EarthChoice practice={practice} earth={setup.earth} change={change} />
          )}
          {what.extremes && <ClampedHow practice={practice} setup={setup} change={change} />}
          {what.load && (
            <Loads
              terminals={bench.terminals}
              practice={practice}
              what={setup.what}
              load={setup.load}
              nothingElseOn={setup.nothingElseOn}
              deviceOpen={setup.deviceOpen}
              amperes={setup.amperes}
              loadBetween={setup.loadBetween}
              change={change}
            />
          )}
          {what.dead && (
            <>
              <span className={classes.note}>Circuit dead, leads nulled</span>
              {what.at_board && hasBoardEnd(setup.probes.measuring ?? setup.probes.reference) && (
                <Toggle
                  on={setup.probes.reference?.startsWith("BOARD-") ?? false}
                  onToggle={() => change({ do: "to the board" })}
                >
                  To its end at the board
                </Toggle>
              )}
              <Toggle
                on={setup.neutralLifted}
                onToggle={() => change({ do: "neutral", lifted: !setup.neutralLifted })}
              >
                Neutral disconnected at the board
              </Toggle>
              {what.unplugged && (
                <Toggle
                  on={setup.nothingElseOn}
                  onToggle={() => change({ do: "unplugged", said: !setup.nothingElseOn })}
                >
                  Everything unplugged
                </Toggle>
              )}
            </>
          )}
          {what.over_range && (
            <Button variant="default" disabled={!ready} onClick={() => props.onRecord({ over_range: true })}>
              Over range
            </Button>
          )}
          {!picked && (
            <RecordButton quiet={(meter !== null || CASE !== null) && !setup.typed} ready={ready} />
          )}
        </div>
      </form>
      {props.waiting}
    </>
  );
}

/** Quiet beside a meter that records by itself. */
const RecordButton = memo(function RecordButton(props: { quiet: boolean; ready: boolean }) {
  return (
    <Button
      type="submit"
      variant={props.quiet ? "default" : "filled"}
      className={classes.record}
      disabled={!props.ready}
    >
      Record
    </Button>
  );
});

/** What the tester is set to, of what it can be set to here. */
const FunctionChoice = memo(function FunctionChoice(props: {
  functions: Bench["functions"];
  tester: string | undefined;
  what: string;
  change: Dispatch<Change>;
}) {
  return (
    <NativeSelect
      aria-label="Function"
      value={props.what}
      onChange={(event) => props.change({ do: "function", what: event.currentTarget.value })}
      data={functionsHere(props, props.tester).map((f) => ({ value: f, label: functionNamed(f).name }))}
    />
  );
});

function Pair({ setup, practice }: { setup: Setup; practice: Practice }) {
  const { measuring, reference } = setup.probes;
  const what = functionNamed(setup.what);
  if (what.probes === "none") return <span>{what.name}</span>;
  const name = (t: string) => contactName(t, practice);
  if (what.probes === "one")
    return <span>{measuring ? <b className={classes.to}>{name(measuring)}</b> : "Tap where it is"}</span>;
  if (!measuring && !reference)
    return <span className="quiet">Tap two contacts, or set up the next test</span>;
  return (
    <span>
      <b className={classes.to}>{measuring ? name(measuring) : "…"}</b> to {reference ? name(reference) : "…"}
    </span>
  );
}

function ratingOf(tester: Tester): string {
  const rating = tester.category
    ? `category ${tester.category}, ${tester.rated_v} V`
    : "category not recorded";
  return `${rating} · ${tester.proved === false ? "not proved: may alarm, does not count" : tester.proved ? "proved" : "proof not recorded"}`;
}
