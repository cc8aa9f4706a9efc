import { Button, Group, Modal, Text } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { memo, useCallback, useDeferredValue, useEffect, useRef, useState } from "react";
import { useParams } from "react-router";
import type { Bench as BenchData, NextTest, Practice, Reading, Tester } from "../../api/client";
import { draftOf, keepDraft } from "../../api/drafts";
import { useCutOff } from "../../api/freshness";
import { forgetPoint, rememberPoint } from "../../api/lastPoints";
import { useNamedTester } from "../../api/lastTester";
import { useIsSending } from "../../api/outbox/useOutbox";
import { withWaiting } from "../../api/outbox/waiting";
import { useIsShown } from "../../api/practice";
import { LOOK_AGAIN_MS, useBench, usePractice, useTesters } from "../../api/queries";
import { wordOf } from "../../api/reference";
import { CASE } from "../../api/sandbox";
import { useSession } from "../../api/session";
import { Failure } from "../../parts/Failure";
import { SaveAs } from "../../parts/SaveAs";
import { useAloud } from "../../parts/useAloud";
import { WORDS } from "../../parts/VerdictShape";
import { WaitingList } from "../../parts/WaitingList";
import { spokenContact } from "../../reading/probes";
import { entryFor, type Setup, useSetup } from "../../reading/setup";
import { CasePanel, Complaint } from "../practice/CasePanel";
import { MakeCase } from "../practice/MakeCase";
import { useDeviceAsItIs } from "../practice/useDeviceAsItIs";
import { pointSurvey } from "../site/surveyFile";
import classes from "./BenchPlace.module.css";
import { Conclusion, Verdict, VerdictInShort } from "./Conclusion";
import { Contacts } from "./Contacts";
import { Header } from "./Header";
import { Keys, keyOf } from "./Keys";
import { Log } from "./Log";
import { ReadingPanel } from "./ReadingPanel";
import { ToEarth } from "./ToEarth";
import { useBenchKeys } from "./useBenchKeys";
import { useRecording } from "./useRecording";

export function BenchPlace() {
  const { pointId = "" } = useParams();
  const bench = useBench(pointId);
  const practice = usePractice(bench.data?.practice);
  const testers = useTesters();
  const cutOff = useCutOff(bench, LOOK_AGAIN_MS);
  const [opened] = useState(() => Date.now());
  const isSeenEarlier = bench.dataUpdatedAt < opened;
  useEffect(() => {
    if (bench.data) rememberPoint(pointId);
    if (bench.isError && !bench.data) forgetPoint(pointId);
  }, [bench.data, bench.isError, pointId]);
  if (bench.isError && !bench.data) return <Failure error={bench.error} retry={() => bench.refetch()} />;
  if (!bench.data || !practice || !testers.data)
    return (
      <div className={classes.opening} aria-busy="true">
        <div className={classes.working} />
        {CASE !== null && <Complaint />}
        <Text className="quiet">Opening the point</Text>
      </div>
    );
  return (
    <PointUnderTest
      key={pointId}
      bench={bench.data}
      practice={practice}
      testers={testers.data}
      cutOff={cutOff}
      isSeenEarlier={isSeenEarlier}
    />
  );
}

function PointUnderTest({
  bench: asAnswered,
  practice,
  testers,
  cutOff,
  isSeenEarlier,
}: {
  bench: BenchData;
  practice: Practice;
  testers: Tester[];
  cutOff: number | null;
  /** It is as this device saw it last, the first answer being on its way. */
  isSeenEarlier: boolean;
}) {
  const place = `bench ${asAnswered.id}`;
  const [begun] = useState(() => draftOf<Setup>(place));
  const held = useNamedTester("live", testers);
  const [setup, change] = useSetup(asAnswered, held.tester, begun, testers);
  /** A phone's storage is slow: what is typed or recorded is shown first. */
  useEffect(() => void setTimeout(() => keepDraft(place, setup.typed ? setup : null)), [place, setup]);
  const field = useRef<HTMLInputElement>(null);
  const [showingKeys, keys] = useDisclosure();
  const isNamed = held.named || setup.tester !== null;
  const recording = useRecording(asAnswered, practice, setup, change, field, isNamed);
  const bench = recording.shown;
  const begunAt = useRef(setup);
  const seenEarlier = useRef(isSeenEarlier);
  const { outbox } = recording.waiting;
  useEffect(() => {
    if (isSeenEarlier || !seenEarlier.current) return;
    seenEarlier.current = false;
    const untouched = setup === begunAt.current && setup.typed === "";
    if (untouched) change({ do: "recorded", readings: withWaiting(bench.readings, outbox.all()) });
  }, [isSeenEarlier, setup, change, bench.readings, outbox]);
  const { interpretation } = bench;
  /** What is drawn and said at length comes when the hand is free again: the number and the verdict come first. */
  const atLength = {
    bench: useDeferredValue(bench),
    probes: useDeferredValue(setup.probes),
  };
  const whole = useWhole(atLength.bench);
  const isBefore = atLength.bench.to_follow;

  const { measuring, reference } = setup.probes;
  const between =
    measuring && reference
      ? `Next: ${spokenContact(measuring, practice)} to ${spokenContact(reference, practice)}.`
      : "";
  const isShown = useIsShown() && !bench.covered && !atLength.bench.covered;
  useDeviceAsItIs(setup, change);
  useAloud(
    isShown
      ? `${cutOff !== null ? "Last known: " : ""}${WORDS[interpretation.verdict]}. ${between}`
      : between,
    practice.language,
  );

  const toEarth = `Voltage of each conductor to ${wordOf(practice, "earth")}`;

  const setUp = useCallback(
    (test: NextTest) => {
      change({
        do: "test",
        test,
        tester: testers.some((t) => t.id === test.instrument) ? test.instrument : null,
      });
      field.current?.focus();
    },
    [change, testers],
  );

  const correct = useCallback(
    (reading: Reading) => {
      change({ do: "correct", reading });
      field.current?.focus();
    },
    [change],
  );

  const { name } = held;
  const nameTester = useCallback(
    (id: string | null) => {
      name(id);
      change({ do: "tester", tester: testers.find((t) => t.id === id) ?? null });
      field.current?.focus();
    },
    [name, change, testers],
  );

  useBenchKeys({
    letters: Object.fromEntries([...bench.terminals, "REF"].map((t) => [keyOf(t, practice), t] as const)),
    contact: (terminal) => change({ do: "contact", terminal }),
    setUp: () => isShown && interpretation.next_tests[0] && setUp(interpretation.next_tests[0]),
    list: keys.open,
    undo: recording.undo,
    field,
  });

  return (
    <div className={classes.bench}>
      <Header bench={bench} />
      <Working of={bench.id} busy={bench.to_follow} />
      <div className={classes.left}>
        <Contacts
          bench={atLength.bench}
          practice={practice}
          what={setup.what}
          probes={atLength.probes}
          change={change}
          field={field}
        />
        <section className={classes.log} aria-label="Readings">
          <Log
            bench={atLength.bench}
            practice={practice}
            onCorrect={correct}
            onWithdraw={recording.withdraw}
          />
          <BelowTheLog bench={whole} onKeys={keys.open} />
        </section>
      </div>
      <div className={classes.middle}>
        <section className={classes.reading} aria-label="The reading">
          {CASE !== null && <Complaint />}
          {isShown && (
            <VerdictInShort found={interpretation} lastKnown={cutOff !== null || recording.unjudged > 0} />
          )}
          <ReadingPanel
            bench={bench}
            practice={practice}
            testers={testers}
            setup={setup}
            change={change}
            field={field}
            wrong={recording.wrong}
            named={isNamed}
            onName={nameTester}
            waiting={
              <>
                {recording.undoable && (
                  <p className={classes.undo}>
                    <span>{recording.undoable.said} recorded.</span>
                    <Button variant="default" onClick={recording.undo}>
                      Undo <kbd>U</kbd>
                    </Button>
                  </p>
                )}
                <WaitingList waiting={recording.waiting} onPutBack={recording.putBack} />
              </>
            }
            onRecord={(what) => recording.record(entryFor(setup, bench.terminals, what))}
          />
        </section>
        {isShown && (
          <section className={classes.ladder} aria-label={toEarth}>
            <h2 className="zone-title">{isBefore ? `${toEarth}, before the last reading` : toEarth}</h2>
            <ToEarth bench={whole} practice={practice} />
          </section>
        )}
      </div>
      <section className={classes.conclusion} aria-label="What it could still be" aria-busy={isBefore}>
        {CASE !== null && <CasePanel />}
        {isShown && (
          <>
            <Verdict found={interpretation} cutOff={cutOff} waiting={recording.unjudged} />
            <Conclusion
              bench={whole}
              before={isBefore}
              practice={practice}
              testers={testers}
              onSetUp={setUp}
              onCorrect={correct}
            />
          </>
        )}
      </section>
      {showingKeys && (
        <Modal opened onClose={keys.close} title="Keys">
          <Keys practice={practice} terminals={bench.terminals} />
        </Modal>
      )}
    </div>
  );
}

/** `busy`: the rest of an answer is being worked out. */
function Working(props: { of: string; busy: boolean }) {
  const sending = useIsSending(props.of);
  const busy = sending || props.busy;
  return (
    <div
      className={busy ? classes.working : classes.idle}
      role="progressbar"
      aria-hidden={!busy}
      aria-label="Working it out"
    />
  );
}

/** The point as it was last worked out to the end: what can still be is that of before until the rest is there. */
function useWhole(bench: BenchData): BenchData {
  const last = useRef(bench);
  if (!bench.to_follow) last.current = bench;
  return last.current;
}

const BelowTheLog = memo(function BelowTheLog({ bench, onKeys }: { bench: BenchData; onKeys: () => void }) {
  const reads = useSession().data?.role === "guest";
  return (
    <Group gap="sm" mt="sm">
      {CASE === null && <SaveAs kind="survey file" name={bench.name} fetch={pointSurvey(bench.id)} />}
      {CASE === null && !reads && <MakeCase bench={bench} />}
      <Button variant="subtle" onClick={onKeys}>
        Keys <kbd style={{ marginLeft: 8 }}>?</kbd>
      </Button>
    </Group>
  );
});
