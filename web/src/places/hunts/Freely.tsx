import { useNamedTester } from "../../api/lastTester";
import { useCase, useIsShown } from "../../api/practice";
import { useTesters } from "../../api/queries";
import { HeldTester } from "../../parts/HeldTester";
import { sentence } from "../../reading/sentence";
import { Complaint } from "../practice/CasePanel";
import { ChainFreely } from "./chain/ChainFreely";
import type { AtHunt } from "./HuntPlace";
import classes from "./Hunts.module.css";
import { RunFreely } from "./run/RunFreely";

/** What is in the hand, and whether somebody said so. */
export type InHand = { tester: string | null; named: boolean };

/** A hunt in a case: where to look is for whoever practises to say; the plan is shown once it was asked for. */
export function Freely(at: AtHunt) {
  const here = useCase().data;
  const isShown = useIsShown();
  const testers = useTesters().data ?? [];
  const { tester, named, name } = useNamedTester("live", testers);
  const { hunt } = at;
  const inHand: InHand = { tester: tester?.id ?? null, named };
  return (
    <>
      <Complaint />
      <h2 className={classes.where}>{here?.over ? "It is over" : "Where do you look?"}</h2>
      {isShown && <p className={classes.first}>The program: {sentence(hunt.said)}.</p>}
      {here && !here.over && (
        <>
          {hunt.seen.length === 0 && <p className={classes.first}>{hunt.first}</p>}
          <div className={classes.freely}>
            <HeldTester testers={testers} held={inHand.tester} named={named} onName={name} />
            {hunt.run && <RunFreely {...at} run={hunt.run} inHand={inHand} />}
            {hunt.chain && <ChainFreely {...at} chain={hunt.chain} inHand={inHand} />}
          </div>
        </>
      )}
    </>
  );
}
