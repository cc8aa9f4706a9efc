import type { AlongChain } from "../../../api/client";
import { useIsShown, useMarks } from "../../../api/practice";
import { Unplaced } from "../../../parts/Unplaced";
import { sentence } from "../../../reading/sentence";
import classes from "../Hunts.module.css";
import { Share } from "../Share";
import { Strike } from "../Strike";

/** The chain from the feed down: every element with its share, and the volts of the joint after it. */
export function ChainDown({ chain }: { chain: AlongChain }) {
  const most = Math.max(...chain.elements.map((element) => element.share), 0.01);
  const isShown = useIsShown();
  const marks = useMarks();
  const next = isShown ? chain.answer.next?.at : undefined;
  return (
    <>
      <p className="quiet">
        {chain.supply_v} V at the feed
        {isShown &&
          chain.answer.coil_share_percent !== null &&
          `; the coil gets ${chain.answer.coil_share_percent} % of what it is rated for`}
      </p>
      <ol className={classes.run}>
        {chain.elements.map((element, number) => (
          <li key={element.id}>
            <div
              className={classes.box}
              data-suspect={(isShown ? element.share > 0 : !marks?.out.has(element.id)) || undefined}
            >
              <span className={classes.shape} aria-hidden />
              <span>
                <strong>{sentence(element.name)}</strong>
                <span className="quiet"> {element.kind === "feed" ? "" : element.kind}</span>
                {!element.closed && <span className={classes.saw}>open, as it should be now</span>}
              </span>
              {isShown && <Share of={element.share} most={most} what={element.name} />}
              {marks && element.kind !== "feed" && (
                <Strike
                  what={element.name}
                  isOut={marks.out.has(element.id)}
                  onTap={() => marks.toggle(element.id)}
                />
              )}
            </div>
            <Unplaced error={marks?.errorAt(element.id) ?? null} />
            <div
              className={classes.cable}
              aria-current={element.id === next ? "step" : undefined}
              data-suspect={element.volts !== null || undefined}
            >
              <span className={classes.line} aria-hidden />
              <span className={element.volts === null ? "quiet" : "mono"}>
                {element.volts === null
                  ? wordsAt(element.id === next, number === chain.elements.length - 1)
                  : `${element.volts} V`}
              </span>
            </div>
          </li>
        ))}
      </ol>
    </>
  );
}

const wordsAt = (isNext: boolean, isLast: boolean) => (isNext ? "measure here" : isLast ? "the return" : "");
