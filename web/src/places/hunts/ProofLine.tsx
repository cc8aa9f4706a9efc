import { Link } from "react-router";
import type { Hunt } from "../../api/client";
import classes from "./Hunts.module.css";

/** Whether the circuit is proved dead, where a hand goes in. */
export function ProofLine({ hunt }: { hunt: Hunt }) {
  if (!hunt.circuit) return null;
  if (hunt.proof && hunt.proof_state === "dead")
    return (
      <p>
        <Link to={`/prove-dead/${hunt.proof}`}>Proved dead</Link>, as long as its proof stands.
      </p>
    );
  const to = hunt.proof
    ? `/prove-dead/${hunt.proof}`
    : `/prove-dead/new?site=${hunt.site.id}&circuit=${hunt.circuit.id}`;
  return (
    <p className={classes.first}>
      Treat as live: this circuit is not proved dead. <Link to={to}>Prove dead</Link>
    </p>
  );
}
