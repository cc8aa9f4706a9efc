import type { Proof } from "../../api/client";
import { Countdown } from "../../parts/Countdown";
import { PROOF_WORDS, ProofShape } from "../../parts/ProofState";
import classes from "./Standing.module.css";

/** How the proof stands, largest of all on the page: the shape, the word, who stated it, and the clock. */
export function Standing({ proof, ahead, onOver }: { proof: Proof; ahead: number; onOver: () => void }) {
  const { state } = proof;
  const stated = state.stated_at !== null;
  const complete = state.state === "proved-dead";
  const word = complete && !stated ? "Complete, not stated" : PROOF_WORDS[state.state];
  return (
    <div
      className={classes.standing}
      data-state={complete && !stated ? "proving" : state.state}
      role="status"
    >
      <ProofShape state={complete && !stated ? "proving" : state.state} size={40} />
      <div>
        <strong>{word}</strong>
        <span>
          {complete && stated && state.stated_at
            ? `${state.stated_by}, ${clock(state.stated_at)}`
            : state.state === "closed"
              ? "Nothing holds any more. Treat as live."
              : "Treat as live."}
        </span>
      </div>
      {complete && state.expires_at && (
        <div className={classes.left}>
          <Countdown until={state.expires_at} ahead={ahead} onOver={onOver} />
          <span>until void</span>
        </div>
      )}
    </div>
  );
}

export const clock = (at: string) =>
  new Date(at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hour12: false });
