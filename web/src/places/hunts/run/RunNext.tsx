import { NativeSelect } from "@mantine/core";
import { type ReactNode, useState } from "react";
import type { AlongRun } from "../../../api/client";
import { useNamedTester } from "../../../api/lastTester";
import { useTesters } from "../../../api/queries";
import { HeldTester } from "../../../parts/HeldTester";
import { sentence } from "../../../reading/sentence";
import type { AtHunt } from "../HuntPlace";
import classes from "../Hunts.module.css";
import { ProofLine } from "../ProofLine";
import { Steps } from "../Steps";
import { percent } from "../words";
import { Joints } from "./Joints";
import { OhmsSeen, VoltsSeen } from "./Numbers";
import { Outcomes } from "./Outcomes";
import { Sides } from "./Sides";

type Next = NonNullable<AlongRun["answer"]["next"]>;
/** `share`: how likely it is, where the plan says so. */
type Outcome = { when: string; share?: number; seen?: object | null };

/** Where to go, what to do there, and what it showed in one tap. */
export function RunNext({ hunt, run, next, seen }: AtHunt & { run: AlongRun; next: Next }) {
  const [chosen, choose] = useState("");
  const at = chosen || next.at;
  const point = run.points.find((point) => point.id === at);
  const here = point?.name ?? run.next_name;
  const elsewhere = at !== next.at;
  const outcomes: Outcome[] = elsewhere
    ? (point?.tells.filter((one) => one.do === next.do) ?? [])
    : next.outcomes.filter((outcome) => outcome.seen);
  const testers = useTesters().data ?? [];
  const { tester, named, name } = useNamedTester("live", testers);
  const held = <HeldTester testers={testers} held={tester?.id ?? null} named={named} onName={name} />;
  const handGoesIn = hunt.kind === "short" || next.do === "open";
  return (
    <>
      <h2 className={classes.where}>
        {elsewhere ? `${next.do === "open" ? "Open" : "Measure at"} ${here}` : sentence(run.next_title)}
      </h2>
      {!elsewhere && (
        <p>
          <strong>{next.expected_minutes} min</strong> still to come
          {run.saved_minutes > 0 && `, ${run.saved_minutes} fewer than in order`}.
        </p>
      )}
      {hunt.seen.length === 0 && <p className={classes.first}>{hunt.first}</p>}
      {run.advice && <p className={classes.first}>{run.advice}</p>}
      <Joints run={run} />
      <Steps steps={hunt.steps} />
      {handGoesIn && <ProofLine hunt={hunt} />}
      {hunt.kind === "short" && <Sides key={at} hunt={hunt} run={run} at={at} tester={tester?.id} />}
      <Outcomes
        outcomes={outcomes}
        onTap={(outcome) => seen({ ...outcome.seen, at }, `${here}: ${outcome.when}`)}
        about={(outcome) =>
          outcome.share !== undefined && (
            <span className="quiet">
              {outcome.share < 1 && percent(outcome.share)}
              {thenOf(run, outcome.when)}
            </span>
          )
        }
      />
      <details className={classes.fold}>
        <summary>Why here, and two steps on</summary>
        <p>{next.why}</p>
        <Ahead ahead={run.ahead} />
        {next.at !== "board" && (
          <NativeSelect
            label="I am at another box"
            value={at}
            onChange={(event) => choose(event.currentTarget.value)}
            data={run.points.slice(1).map((point) => ({ value: point.id, label: point.name }))}
          />
        )}
      </details>
      {next.do !== "open" && hunt.kind !== "short" && (
        <WithNumbers isNeeded={hunt.kind === "poor-joint"}>
          {held}
          <VoltsSeen
            key={at}
            hunt={hunt}
            run={run}
            at={at}
            here={here}
            loaded={hunt.kind === "poor-joint"}
            tester={tester?.id}
            seen={seen}
          />
        </WithNumbers>
      )}
      {hunt.kind === "short" && (
        <>
          <OhmsSeen run={run} seen={seen} />
          <details className={classes.fold}>
            <summary>{tester ? `Measuring with ${tester.label}` : "A meter on the wire"}</summary>
            {held}
          </details>
        </>
      )}
    </>
  );
}

/** Numbers, where a tap is enough, behind a word. */
function WithNumbers({ isNeeded, children }: { isNeeded: boolean; children: ReactNode }) {
  if (isNeeded) return children;
  return (
    <details className={classes.fold}>
      <summary>With its volts</summary>
      {children}
    </details>
  );
}

/** If here, then there, two steps on. */
function Ahead({ ahead }: { ahead: AlongRun["ahead"] }) {
  return (
    <ul className={classes.ahead}>
      {ahead.map((one) => (
        <li key={one.when}>
          <strong>{sentence(one.when)}</strong>: {one.then}
          {one.after.length > 0 && (
            <ul>
              {one.after.map((after) => (
                <li key={after.when}>
                  {after.when}: {after.then}
                </li>
              ))}
            </ul>
          )}
        </li>
      ))}
    </ul>
  );
}

function thenOf(run: AlongRun, when: string) {
  const then = run.ahead.find((one) => one.when === when)?.then;
  return then ? ` → ${then}` : "";
}
