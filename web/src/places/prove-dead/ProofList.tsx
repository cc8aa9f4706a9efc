import { Link } from "react-router";
import type { ProofLine } from "../../api/client";
import { Countdown } from "../../parts/Countdown";
import { PROOF_WORDS, ProofShape } from "../../parts/ProofState";
import classes from "./Prove.module.css";

/** Proofs as lines: how each stands, what runs out when, what is next. */
export function ProofList({ proofs, ahead }: { proofs: ProofLine[]; ahead: number }) {
  return (
    <ul className={classes.list}>
      {proofs.map((proof) => {
        const unstated = proof.state === "proved-dead" && !proof.stated_by;
        return (
          <li key={proof.id}>
            <Link to={`/prove-dead/${proof.id}`}>
              <ProofShape state={unstated ? "proving" : proof.state} />
              <span>
                <strong>{proof.name}</strong>
                <span className="quiet">{proof.site}</span>
                <em>{proof.said || proof.next}</em>
              </span>
              <span className={classes.right}>
                {proof.expires_at && <Countdown until={proof.expires_at} ahead={ahead} />}
                {unstated ? "Complete, not stated" : PROOF_WORDS[proof.state]}
              </span>
            </Link>
          </li>
        );
      })}
    </ul>
  );
}
