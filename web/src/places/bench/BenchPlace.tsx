import { Button, Group, Modal, Text } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { notifications } from "@mantine/notifications";
import { useCallback, useEffect, useRef } from "react";
import { useParams } from "react-router";
import type { Entry } from "../../api/client";
import client, {
  answer,
  type Bench as BenchData,
  type NextTest,
  type Practice,
  type Reading,
  type Tester,
} from "../../api/client";
import { useCutOff } from "../../api/freshness";
import { newId } from "../../api/ids";
import { forgetBench, rememberBench } from "../../api/lastBench";
import { LOOK_AGAIN_MS, useBench, usePractice, useTesters } from "../../api/queries";
import { BENCH } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { useWaiting, useWhenSent, type Waiting } from "../../api/useWaiting";
import { withWaiting } from "../../api/waiting";
import { Face, FEW_CONTACTS } from "../../parts/Face";
import { Failure } from "../../parts/Failure";
import { Ladder } from "../../parts/Ladder";
import { Phasors } from "../../parts/Phasors";
import { SaveAs } from "../../parts/SaveAs";
import { ends, isAsIs, seen } from "../../reading/entry";
import { functionNamed } from "../../reading/functions";
import { entryFor, type Setup, useSetup } from "../../reading/setup";
import { pointSurvey } from "../site/surveyFile";
import classes from "./BenchPlace.module.css";
import { Conclusion } from "./Conclusion";
import { Header } from "./Header";
import { Keys, keyOf } from "./Keys";
import { Log } from "./Log";
import { Pairs } from "./Pairs";
import { ReadingPanel } from "./ReadingPanel";
import { useBenchKeys } from "./useBenchKeys";
import { usePutBack } from "./usePutBack";
import { WaitingList } from "./WaitingList";

export function BenchPlace() {
  const { pointId = "" } = useParams();
  const bench = useBench(pointId);
  const practice = usePractice(bench.data?.practice);
  const testers = useTesters();
  const cutOff = useCutOff(bench, LOOK_AGAIN_MS);
  useEffect(() => {
    if (bench.data) rememberBench(pointId);
    if (bench.isError && !bench.data) forgetBench();
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
    />
  );
}

function PointUnderTest({
  bench,
  practice,
  testers,
  cutOff,
}: {
  bench: BenchData;
  practice: Practice;
  testers: Tester[];
  cutOff: number | null;
}) {
  const [setup, change] = useSetup(bench, testers);
  const field = useRef<HTMLInputElement>(null);
  const [showingKeys, keys] = useDisclosure();
  const waiting = useWaiting(bench.id);
  const withdraw = useRecord(BENCH, (reading: string, { id }) =>
    answer(
      client.PUT("/api/points/{point_id}/withdrawals/{withdrawal_id}", {
        params: { path: { point_id: bench.id, withdrawal_id: id } },
        body: { reading },
      }),
    ),
  );
  const busy = waiting.sending || withdraw.isPending;
  const { interpretation } = bench;

  const recorded = (entry: Entry) => {
    clearWrong();
    waiting.readings.add({
      id: newId(),
      point: bench.id,
      body: {
        entry,
        tester: setup.tester,
        supersedes: setup.correcting,
        taken_at: new Date().toISOString(),
      },
      said: `${ends(entry, practice)}, ${seen(entry)}`,
      typed: setup,
    });
    change({ do: "recorded", readings: withWaiting(bench.readings, waiting.readings.all()) });
    field.current?.focus();
  };

  const putBack = (one: Waiting) => {
    waiting.readings.drop(one.id);
    const before = one.typed as Setup | undefined;
    if (before) change({ do: "put back", setup: before });
    field.current?.focus();
    return before?.typed ?? "";
  };
  const [wrong, clearWrong] = usePutBack(waiting.list, setup.typed, putBack);

  useWhenSent(
    useCallback(
      (one) => {
        if (one.point === bench.id) offerUndoOf.current(one);
      },
      [bench.id],
    ),
  );

  const offerUndo = (message: string, reading: string) => {
    notifications.clean();
    const shown = notifications.show({
      withCloseButton: false,
      message: (
        <Group justify="space-between" wrap="nowrap">
          <span>{message}</span>
          <Button
            variant="default"
            onClick={() => {
              notifications.hide(shown);
              withdraw.mutate(reading);
            }}
          >
            Undo
          </Button>
        </Group>
      ),
    });
  };

  const offerUndoOf = useRef((_one: Waiting) => {});
  offerUndoOf.current = (one) => offerUndo(`${one.said} recorded.`, one.id);

  const setUp = (test: NextTest) => {
    change({
      do: "test",
      test,
      tester: testers.some((t) => t.id === test.instrument) ? test.instrument : null,
    });
    field.current?.focus();
  };

  const correct = (reading: Reading) => {
    change({ do: "correct", reading });
    field.current?.focus();
  };

  useBenchKeys({
    letters: Object.fromEntries([...bench.terminals, "REF"].map((t) => [keyOf(t, practice), t] as const)),
    contact: (terminal) => change({ do: "contact", terminal }),
    setUp: () => interpretation.next_tests[0] && setUp(interpretation.next_tests[0]),
    list: keys.open,
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
        className={busy ? classes.working : classes.idle}
        role="progressbar"
        aria-hidden={!busy}
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
          <p className={classes.hint}>{probeHint(setup, practice)}</p>
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
          <Log
            bench={bench}
            practice={practice}
            onCorrect={correct}
            onWithdraw={(id) => withdraw.mutate(id)}
          />
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
          <ReadingPanel
            bench={bench}
            practice={practice}
            testers={testers}
            setup={setup}
            change={change}
            field={field}
            busy={busy}
            wrong={wrong || (withdraw.error?.problems.map((p) => p.text).join(" ") ?? "")}
            waiting={<WaitingList waiting={waiting} onPutBack={putBack} />}
            onRecord={(what) => recorded(entryFor(setup, bench.terminals, what))}
          />
        </section>
        <section className={classes.ladder} aria-label="Voltage of each conductor to earth">
          <h2 className="zone-title">Voltage of each conductor to earth</h2>
          {interpretation.stories.length > 0 && interpretation.verdict !== "untested" ? (
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
          ) : (
            <Text className="quiet">
              {interpretation.verdict === "contradictory"
                ? "The readings contradict each other, so nothing can be placed. Retake first."
                : "Each conductor is placed here as the readings pin it down."}
            </Text>
          )}
        </section>
      </div>
      <section className={classes.conclusion} aria-label="What it could still be">
        <Conclusion
          bench={bench}
          practice={practice}
          testers={testers}
          cutOff={cutOff}
          waiting={waiting.list.length}
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

const severalLines = (terminals: string[]) => terminals.filter((t) => t.startsWith("L")).length > 1;

/** What to do next with the probes, or with whatever the tester is set to. */
function probeHint({ probes, what }: Setup, practice: Practice) {
  const f = functionNamed(what);
  const name = (terminal: string) =>
    terminal === "REF" ? (practice.words.REF ?? "REF") : (practice.letters[terminal] ?? terminal);
  if (f.probes !== "two")
    return f.hint_at && probes.measuring ? f.hint_at.replace("{at}", name(probes.measuring)) : f.hint;
  if (!probes.reference) return "Tap the reference contact first.";
  if (!probes.measuring) return `Reference at ${name(probes.reference)}. Now tap the measuring contact.`;
  return `Dark probe on ${name(probes.reference)} first, then copper on ${name(probes.measuring)}. Off in reverse. One hand.`;
}
