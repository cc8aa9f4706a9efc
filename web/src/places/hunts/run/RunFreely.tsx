import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import type { AlongRun } from "../../../api/client";
import { useCase, useDo } from "../../../api/practice";
import { usePractice } from "../../../api/queries";
import { TwoTapButton } from "../../../parts/TwoTapButton";
import { Unplaced } from "../../../parts/Unplaced";
import { Display } from "../../practice/Display";
import type { InHand } from "../Freely";
import { How } from "../How";
import type { AtHunt } from "../HuntPlace";
import classes from "../Hunts.module.css";
import { ProofLine } from "../ProofLine";
import { PAIRS } from "../words";
import { Outcomes } from "./Outcomes";

/** In a case one goes where one likes, opens, measures, and tells what was seen. */
export function RunFreely({ hunt, run, seen, inHand }: AtHunt & { run: AlongRun; inHand: InHand }) {
  const [at, go] = useState(run.standing_at);
  const opened = useCase().data?.opened ?? [];
  const act = useDo();
  const letters = usePractice(hunt.practice)?.letters ?? {};
  const point = run.points.find((one) => one.id === at);
  const here = point?.name ?? "";
  const isOpen = opened.includes(at);
  const mayBeOpened = at !== "board" && !isOpen;
  const tasks = [...new Set(point?.tells.map((one) => one.do))];
  const tells = point?.tells.filter((one) => one.do !== "open" || isOpen) ?? [];
  return (
    <>
      <NativeSelect
        label="I am at"
        value={at}
        onChange={(event) => go(event.currentTarget.value)}
        data={run.points.map((one) => ({ value: one.id, label: one.name }))}
      />
      {(hunt.kind === "short" || mayBeOpened) && <ProofLine hunt={hunt} />}
      <How steps={tasks.flatMap((task) => run.how[task] ?? [])} />
      {hunt.kind === "open" ? (
        <Face key={at} hunt={hunt.id} practice={hunt.practice} at={at} inHand={inHand} />
      ) : (
        (at === "board" || isOpen) && <SidesShown hunt={hunt.id} run={run} at={at} inHand={inHand} />
      )}
      {mayBeOpened && (
        <TwoTapButton
          variant="default"
          fullWidth
          asks={`Open ${here}`}
          again="Your hand in it, now?"
          onTapped={() => act.mutate({ doing: "opened", entry: { at } })}
        />
      )}
      <Unplaced error={act.error} />
      {tells.length > 0 && <p>What did {run.between.map((one) => letters[one] ?? one).join(" to ")} show?</p>}
      <Outcomes
        outcomes={tells}
        onTap={(one) => seen(one.seen, `${here}: ${one.when}`, inHand.tester ?? undefined)}
      />
    </>
  );
}

/** Volts at the face of a box: on two of its contacts at a time. */
function Face(props: { hunt: string; practice: AtHunt["hunt"]["practice"]; at: string; inHand: InHand }) {
  const { hunt, at, inHand } = props;
  const letters = usePractice(props.practice)?.letters ?? {};
  const [pair, choose] = useState("L-N");
  const [from, to] = PAIRS.find((two) => two.join("-") === pair) ?? ["L", "N"];
  return (
    <>
      <NativeSelect
        label="Probes on"
        value={pair}
        onChange={(event) => choose(event.currentTarget.value)}
        data={PAIRS.map(([one, other]) => ({
          value: `${one}-${other}`,
          label: `${letters[one] ?? one} to ${letters[other] ?? other}`,
        }))}
      />
      <Display
        entry={{ hunt, at, function: "volts", from, to }}
        tester={inHand.tester}
        ready={inHand.named}
      />
    </>
  );
}

/** Ohms on each side of what is taken apart. */
function SidesShown(props: { hunt: string; run: AlongRun; at: string; inHand: InHand }) {
  const { hunt, run, at, inHand } = props;
  const [from, to] = run.between;
  const sides = at === "board" ? (["onward"] as const) : (["feed", "onward"] as const);
  if (!from || !to) return null;
  return sides.map((side) => (
    <div key={`${at} ${side}`} className={classes.side}>
      <h3>{at === "board" ? "On the outgoing conductors" : `On the ${side} side`}</h3>
      <Display
        entry={{ hunt, at, side, function: "ohms", from, to }}
        tester={inHand.tester}
        ready={inHand.named}
      />
    </div>
  ));
}
