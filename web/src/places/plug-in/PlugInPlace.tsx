import { Button, Text } from "@mantine/core";
import { Link, useParams } from "react-router";
import client, { answer, type PlugIn, type Practice, type SupplyIn } from "../../api/client";
import { useCutOff } from "../../api/freshness";
import { useNamedTester } from "../../api/lastTester";
import { LOOK_AGAIN_MS, usePlugIn, usePractice, useTesters } from "../../api/queries";
import { SITE } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { Failure } from "../../parts/Failure";
import { HeldTester } from "../../parts/HeldTester";
import { LastKnown } from "../../parts/LastKnown";
import { Page } from "../../parts/Page";
import { colourOf, lastKnownShape, VerdictShape } from "../../parts/VerdictShape";
import { circumstances, testName } from "../../reading/entry";
import { QuickSet } from "../bench/QuickSet";
import { plateOf } from "./BeforePluggingIn";
import classes from "./PlugIn.module.css";

const ANSWERS: Record<string, [shape: string, words: string]> = {
  "plug-in": ["correct", "Plug in"],
  "one-more": ["unconfirmed", "One more reading"],
  "do-not": ["danger", "Do not plug in"],
};
const RESULTS: Record<string, [shape: string, word: string]> = {
  yes: ["correct", "has it"],
  note: ["safe", "note"],
  open: ["unconfirmed", "open"],
  no: ["danger", "no"],
};

/** The answer, the reading that comes next, and everything it stands on. */
export function PlugInPlace() {
  const { pointId = "", equipmentId = "" } = useParams();
  const testers = useTesters();
  const held = useNamedTester("live", testers.data ?? []);
  const { tester } = held;
  const found = usePlugIn(pointId, equipmentId, tester?.id);
  const practice = usePractice(found.data?.practice);
  const cutOff = useCutOff(found, LOOK_AGAIN_MS);
  if (found.isError && !found.data) return <Failure error={found.error} retry={() => found.refetch()} />;
  if (!found.data || !practice || !testers.data) return <div aria-busy="true" />;
  const { data } = found;
  const [fresh, words] = ANSWERS[data.answer] ?? ["untested", data.answer];
  const shape = lastKnownShape(fresh, cutOff !== null);
  const inSet =
    data.take !== null &&
    circumstances(data.take.circumstance) === "" &&
    data.quick.some((q) => q.from === data.take?.from && q.to === data.take?.to && q.entry === null);
  return (
    <Page
      title={`${data.equipment.label} into ${data.name}`}
      under={`${plateOf(data.equipment)}. ${data.site.name}, ${data.system_title}.`}
      back={["/plug-in", "Before plugging in"]}
    >
      <div className={classes.columns}>
        <section className={classes.answer} aria-label="The answer">
          <div className={classes.says} aria-live="polite">
            <VerdictShape kind={shape} size={56} />
            <div>
              <strong style={{ color: colourOf(shape) }}>
                {cutOff !== null && "Last known: "}
                {words}
              </strong>
              <p>{data.says}</p>
              {cutOff !== null && (
                <p>
                  <LastKnown since={cutOff} /> Plug nothing in until the server answers.
                </p>
              )}
            </div>
          </div>
          {data.take && !inSet && (
            <div className={classes.take}>
              <span>
                Take <b>{testName(data.take, practice)}</b>
              </span>
              <Button component={Link} to={`/bench/${data.id}`} variant="outline" size="lg">
                Take it on the Bench
              </Button>
            </div>
          )}
          <HeldTester
            testers={testers.data}
            held={tester?.id ?? null}
            named={held.named}
            onName={held.name}
            className={classes.tester}
          />
          {held.named ? (
            <QuickSet
              point={data}
              practice={practice}
              tester={tester}
              testerId={tester?.id ?? null}
              quick={data.quick}
            />
          ) : (
            <p>Say which tester is in your hand: nothing can be recorded before.</p>
          )}
          <p className={classes.caution}>{data.caution} When in doubt, treat as live.</p>
        </section>
        <section aria-label="What it stands on">
          <h2 className="zone-title">What it needs, and what the outlet has</h2>
          <ul className={classes.checks}>
            {data.checks.map((check) => {
              const [kind, word] = RESULTS[check.result] ?? ["untested", check.result];
              return (
                <li key={check.id}>
                  <VerdictShape kind={kind} size={22} />
                  <span>
                    <strong>{check.title}</strong> <span className="quiet">{word}</span>
                    <span className={classes.text}>{check.text}</span>
                    {check.limit && <span className={classes.source}>{check.limit.source}</span>}
                  </span>
                </li>
              );
            })}
          </ul>
          <ReadsLike found={data} practice={practice} />
        </section>
      </div>
    </Page>
  );
}

/** Which supplies the readings can be all right on, and the way to record another than was supposed. */
function ReadsLike({ found, practice }: { found: PlugIn; practice: Practice }) {
  const change = useRecord(SITE, (system: SupplyIn["system"]) =>
    answer(
      client.PUT("/api/supplies/{supply_id}", {
        params: { path: { supply_id: found.supply.id } },
        body: { site: found.site.id, name: found.supply.name, system, earthing: found.earthing },
      }),
    ),
  );
  if (found.reads_like.length === 0) return null;
  const usual = practice.systems.map((s) => s.id);
  return (
    <>
      <h2 className={`zone-title ${classes.like}`}>Supply that fits these readings</h2>
      <ul className={classes.supplies}>
        {found.reads_like.slice(0, 4).map((like) => (
          <li key={like.system}>
            <span>{like.title}</span>
            <span className={classes.bar} title="How likely, for order only">
              <i style={{ width: `${Math.max(4, like.share * 100)}%` }} />
            </span>
            {like.system === found.system ? (
              <span className="quiet">as recorded</span>
            ) : (
              usual.includes(like.system) && (
                <Button
                  variant="subtle"
                  loading={change.isPending}
                  onClick={() => change.mutate(like.system)}
                >
                  Use this supply
                </Button>
              )
            )}
          </li>
        ))}
      </ul>
      {change.error && (
        <Text role="alert" c="var(--ep-vermilion)">
          {change.error.message}
        </Text>
      )}
    </>
  );
}
