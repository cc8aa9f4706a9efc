import type { OverBoard } from "../../../api/client";
import type { AtHunt } from "../HuntPlace";
import classes from "../Hunts.module.css";
import { Steps } from "../Steps";
import { roundNow, withTaps } from "./taps";

/** Which ways to switch, and one tap an outlet: live or dead. */
export function BoardRound({ hunt, map, seen, told }: AtHunt & { map: OverBoard }) {
  const outlets = withTaps(map, told);
  const number = roundNow(outlets);
  const round = map.rounds.find((one) => one.round === number);
  if (!round) return <h2 className={classes.where}>Every outlet was looked at</h2>;
  const left = outlets.filter((one) => one.live[round.round - 1] === null).length;
  return (
    <>
      <h2 className={classes.where}>
        Round {round.round} of {map.rounds.length}
      </h2>
      {hunt.seen.length === 0 && <p className={classes.first}>{hunt.first}</p>}
      <Steps steps={hunt.steps} />
      <dl className={classes.ways}>
        <dt>On</dt>
        <dd>{round.on.join(", ") || "none"}</dd>
        <dt>Off</dt>
        <dd>{round.off.join(", ") || "none"}</dd>
      </dl>
      <p>
        <strong>{left}</strong> to look at in this round.
      </p>
      <ul className={classes.taps}>
        {outlets.map((outlet) => {
          const live = outlet.live[round.round - 1] ?? null;
          const tap = (is: boolean) =>
            seen(
              { outlet: outlet.id, round: round.round, live: is },
              `${outlet.name}, round ${round.round}: ${is ? "live" : "dead"}`,
            );
          return (
            <li key={outlet.id} data-told={live === null ? undefined : true}>
              <span>{outlet.name}</span>
              {live === null ? (
                <>
                  <button
                    type="button"
                    className={classes.tap}
                    aria-label={`${outlet.name}: live`}
                    onClick={() => tap(true)}
                  >
                    ● Live
                  </button>
                  <button
                    type="button"
                    className={classes.tap}
                    aria-label={`${outlet.name}: dead`}
                    onClick={() => tap(false)}
                  >
                    ○ Dead
                  </button>
                </>
              ) : (
                <strong>{live ? "● live" : "○ dead"}</strong>
              )}
            </li>
          );
        })}
      </ul>
    </>
  );
}
