import { Button, Group, Modal, Text } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { memo, useCallback, useEffect, useRef, useState } from "react";
import { useParams } from "react-router";
import type { Bench as BenchData, NextTest, Practice, Reading, Tester } from "../../api/client";
import { draftOf, keepDraft } from "../../api/drafts";
import { useCutOff } from "../../api/freshness";
import { forgetPoint, rememberPoint } from "../../api/lastPoints";
import { useNamedTester } from "../../api/lastTester";
import { withWaiting } from "../../api/outbox/outbox";
import { LOOK_AGAIN_MS, useBench, usePractice, useTesters } from "../../api/queries";
import { wordOf } from "../../api/reference";
import { Face, FEW_CONTACTS } from "../../parts/Face";
import { Failure } from "../../parts/Failure";
import { Ladder } from "../../parts/Ladder";
import { Phasors } from "../../parts/Phasors";
import { SaveAs } from "../../parts/SaveAs";
import { useAloud } from "../../parts/useAloud";
import { WORDS } from "../../parts/VerdictShape";
import { WaitingList } from "../../parts/WaitingList";
import { isAsIs, seen } from "../../reading/entry";
import { probeHint, spokenContact } from "../../reading/probes";
import { entryFor, type Setup, useSetup } from "../../reading/setup";
import { pointSurvey } from "../site/surveyFile";
import classes from "./BenchPlace.module.css";
import { Conclusion, VerdictInShort } from "./Conclusion";
import { Header } from "./Header";
import { Keys, keyOf } from "./Keys";
import { Log } from "./Log";
import { Pairs } from "./Pairs";
import { ReadingPanel } from "./ReadingPanel";
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
  bench,
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
  const place = `bench ${bench.id}`;
  const [begun] = useState(() => draftOf<Setup>(place));
  const held = useNamedTester("live", testers);
  const [setup, change] = useSetup(bench, held.tester, begun);
  useEffect(() => keepDraft(place, setup.typed ? setup : null), [place, setup]);
  const field = useRef<HTMLInputElement>(null);
  const [showingKeys, keys] = useDisclosure();
  const recording = useRecording(bench, practice, setup, change, field);
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

  const { measuring, reference } = setup.probes;
  const between =
    measuring && reference
      ? `Next: ${spokenContact(measuring, practice)} to ${spokenContact(reference, practice)}.`
      : "";
  useAloud(
    `${cutOff !== null ? "Last known: " : ""}${WORDS[interpretation.verdict]}. ${between}`,
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

  useBenchKeys({
    letters: Object.fromEntries([...bench.terminals, "REF"].map((t) => [keyOf(t, practice), t] as const)),
    contact: (terminal) => change({ do: "contact", terminal }),
    setUp: () => interpretation.next_tests[0] && setUp(interpretation.next_tests[0]),
    list: keys.open,
    undo: recording.undo,
    field,
  });

  const measured = bench.readings
    .filter((r) => r.status === "counts" && isAsIs(r.entry))
    .map((r) => r.entry)
    .filter(
      (e) => e.from && e.to && (e.value !== undefined || e.at_least !== undefined || e.below !== undefined),
    )
    .map((e) => ({ from: e.from as string, to: e.to as string, text: seen(e).replace(" V", "") }));

  return (
    <div className={classes.bench}>
      <Header bench={bench} />
      <div
        className={recording.busy ? classes.working : classes.idle}
        role="progressbar"
        aria-hidden={!recording.busy}
        aria-label="Working it out"
      />
      <div className={classes.left}>
        <section
          className={classes.face}
          aria-label="The point"
          data-many={bench.terminals.length > FEW_CONTACTS || undefined}
        >
          <h2 className="zone-title">Contacts</h2>
          <Face
            kind={bench.kind}
            practice={practice}
            terminals={bench.terminals}
            probes={setup.probes}
            measured={measured}
            onContact={(terminal) => change({ do: "contact", terminal })}
          />
          <p className={classes.hint}>{probeHint(setup.what, setup.probes, practice)}</p>
          {bench.terminals.length > FEW_CONTACTS && (
            <Pairs
              terminals={bench.terminals}
              practice={practice}
              measured={measured}
              probes={setup.probes}
              onPair={(measuring, reference) => {
                change({ do: "pair", measuring, reference });
                field.current?.focus();
              }}
            />
          )}
        </section>
        <section className={classes.log} aria-label="Readings">
          <Log bench={bench} practice={practice} onCorrect={correct} onWithdraw={recording.withdraw} />
          <Group gap="sm" mt="sm">
            <SaveAs kind="survey file" name={bench.name} fetch={pointSurvey(bench.id)} />
            <Button variant="subtle" onClick={keys.open}>
              Keys <kbd style={{ marginLeft: 8 }}>?</kbd>
            </Button>
          </Group>
        </section>
      </div>
      <div className={classes.middle}>
        <section className={classes.reading} aria-label="The reading">
          <VerdictInShort
            found={interpretation}
            lastKnown={cutOff !== null || recording.waiting.list.length > 0}
          />
          <ReadingPanel
            bench={bench}
            practice={practice}
            testers={testers}
            setup={setup}
            change={change}
            field={field}
            busy={recording.busy}
            wrong={recording.wrong}
            named={held.named || setup.tester !== null}
            onName={(id) => {
              held.name(id);
              change({ do: "tester", tester: testers.find((t) => t.id === id) ?? null });
              field.current?.focus();
            }}
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
        <section className={classes.ladder} aria-label={toEarth}>
          <h2 className="zone-title">{toEarth}</h2>
          <ToEarth bench={bench} practice={practice} />
        </section>
      </div>
      <section className={classes.conclusion} aria-label="What it could still be">
        <Conclusion
          bench={bench}
          practice={practice}
          testers={testers}
          cutOff={cutOff}
          waiting={recording.waiting.list.length}
          onSetUp={setUp}
          onCorrect={correct}
        />
      </section>
      <Modal opened={showingKeys} onClose={keys.close} title="Keys">
        <Keys practice={practice} terminals={bench.terminals} />
      </Modal>
    </div>
  );
}

/** Where each conductor is, as far as the readings pin it down; drawn anew only when they do. */
const ToEarth = memo(function ToEarth({ bench, practice }: { bench: BenchData; practice: Practice }) {
  const { interpretation } = bench;
  if (interpretation.stories.length === 0 || interpretation.verdict === "untested")
    return (
      <Text className="quiet">
        {interpretation.verdict === "contradictory"
          ? "The readings contradict each other, so nothing can be placed. Retake first."
          : "Each conductor is placed here as the readings pin it down."}
      </Text>
    );
  return (
    <>
      <Ladder
        stories={interpretation.stories}
        practice={practice}
        nominal={bench.nominal_volts}
        band={interpretation.healthy_band ?? null}
        short={severalLines(bench.terminals)}
      />
      {severalLines(bench.terminals) && (
        <div className={classes.phasors}>
          {interpretation.stories.map((story) => (
            <Phasors key={story.title} story={story} practice={practice} />
          ))}
        </div>
      )}
    </>
  );
});

const severalLines = (terminals: string[]) => terminals.filter((t) => t.startsWith("L")).length > 1;
