import { Button } from "@mantine/core";
import { Link } from "react-router";
import type { Hunt } from "../../api/client";
import { sentence } from "../../reading/sentence";
import type { KeepSeen } from "./HuntPlace";
import classes from "./Hunts.module.css";
import { ProofLine } from "./ProofLine";
import { Joints } from "./run/Joints";
import { Steps } from "./Steps";
import { TakeBack } from "./TakeBack";

/** There is nothing more to look for: it was found, is clear, contradicts itself, or is mended. */
export function Over({ hunt, keep }: { hunt: Hunt; keep: KeepSeen }) {
  const { state, map, guide, run, chain } = hunt;
  const name = map
    ? sentence(hunt.said)
    : {
        found: `Found: ${hunt.said}`,
        clear: guide ? hunt.said : "Clear",
        contradictory: "These cannot both be",
      }[state as string];
  const advice = run?.advice || chain?.advice;
  return (
    <>
      <h2 className={classes.where}>{name ?? sentence(hunt.said)}</h2>
      {state === "contradictory" && <Contradiction hunt={hunt} keep={keep} />}
      {state === "clear" && !guide && <p>{sentence(hunt.said)}.</p>}
      {advice && <p className={classes.first}>{advice}</p>}
      {run && <Joints run={run} />}
      <Steps steps={hunt.steps} />
      {state === "found" && !map && <ProofLine hunt={hunt} />}
      <div className={classes.acts}>
        {(state === "found" || state === "clear") && <GoOn hunt={hunt} />}
        {state === "found" && map && !map.scheduled && (
          <Button size="lg" onClick={() => keep({ kind: "scheduled", entry: {} }, "Schedule filled")}>
            Fill the schedule
          </Button>
        )}
        {state === "found" && !map && (
          <Button size="lg" onClick={() => keep({ kind: "mended", entry: {} }, "Mended")}>
            Mended
          </Button>
        )}
        {state === "mended" && hunt.circuit && (
          <Button
            component={Link}
            to={`/dead-tests/new?circuit=${hunt.circuit.id}`}
            variant="default"
            size="lg"
          >
            Dead tests, then energise once
          </Button>
        )}
        {(state === "mended" || state === "clear" || map?.scheduled) && (
          <Button size="lg" onClick={() => keep({ kind: "closed", entry: {} }, "Closed")}>
            Close this hunt
          </Button>
        )}
      </div>
    </>
  );
}

/** Two that cannot both be: either can be taken back, whoever told it. */
function Contradiction({ hunt, keep }: { hunt: Hunt; keep: KeepSeen }) {
  return (
    <>
      <p role="alert">{hunt.said}</p>
      {hunt.seen
        .filter((one) => one.contradicts)
        .map((one) => (
          <TakeBack key={one.event} told={one} keep={keep} named />
        ))}
    </>
  );
}

/** What a guided hunt leads to is hunted from here on. */
function GoOn({ hunt }: { hunt: Hunt }) {
  const ending = hunt.guide?.ending;
  if (!ending?.hunt || !hunt.circuit) return null;
  const to = new URLSearchParams({
    site: hunt.site.id,
    circuit: hunt.circuit.id,
    happened: hunt.happening,
    kind: ending.hunt,
    ...(ending.between && { between: ending.between.join("-") }),
  });
  return (
    <Button component={Link} to={`/hunts/new?${to}`} size="lg">
      Go on along the run
    </Button>
  );
}
