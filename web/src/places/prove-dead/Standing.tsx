import { useEffect } from "react";
import type { Proof } from "../../api/client";
import { cutOffFor } from "../../api/freshness";
import { ProofShape } from "../../parts/ProofState";
import { minutesAndSeconds, type StandingNow } from "../../parts/proofStanding";
import { dayAndTimeOf, timeOf } from "../../reading/dates";
import classes from "./Standing.module.css";

/** How the proof stands, largest of all on the page: the shape, the word, who stated it, and the clock. */
export function Standing(props: {
  proof: Proof;
  standing: StandingNow;
  cutOff: number | null;
  onOver: () => void;
}) {
  const { proof, standing, cutOff, onOver } = props;
  const ranOut = standing.state === "void" && proof.state.state === "proved-dead";
  useEffect(() => {
    if (ranOut) onOver();
  }, [ranOut, onOver]);
  return (
    <div className={classes.standing} data-state={standing.state}>
      <ProofShape state={standing.state} size={40} />
      <div role="status">
        <strong>
          {standing.word}
          {standing.state === "last-known" && cutOff !== null && ` at ${timeOf(cutOff, proof.practice)}`}
        </strong>
        <span>{under(proof, standing, cutOff)}</span>
      </div>
      {standing.ms !== null && (
        <div className={classes.left}>
          <time className="mono">{minutesAndSeconds(standing.ms)}</time>
          <span>still valid</span>
        </div>
      )}
    </div>
  );
}

function under(
  { state, brought_at, by, practice }: Proof,
  standing: StandingNow,
  cutOff: number | null,
): string {
  if (brought_at) return `Imported by ${by}, ${dayAndTimeOf(brought_at, practice)}. It proves nothing here.`;
  if (standing.state === "void" && state.state === "proved-dead") return "Its time is over. Treat as live.";
  if (cutOff !== null) return `${cutOffFor(cutOff)} Somebody else may have ended it: treat as live.`;
  if (standing.state === "proved-dead" && state.stated_at)
    return `${state.stated_by}, ${timeOf(state.stated_at, practice)}`;
  return state.state === "closed" ? "Nothing holds any more. Treat as live." : "Treat as live.";
}
