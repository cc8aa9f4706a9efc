import { Link } from "react-router";
import type { Hunt, ProofLine as Proof } from "../../api/client";
import type { Moment } from "../../api/clock";
import { useCutOff } from "../../api/freshness";
import { LOOK_AGAIN_MS, useProofs } from "../../api/queries";
import { minutesAndSeconds } from "../../parts/proofStanding";
import { useProofStanding } from "../../parts/useProofStanding";
import classes from "./Hunts.module.css";

/** Whether the circuit is proved dead, where a hand goes in: by the proof itself, its clock, and how old it is. */
export function ProofLine({ hunt }: { hunt: Hunt }) {
  const proofs = useProofs();
  const cutOff = useCutOff(proofs, LOOK_AGAIN_MS) !== null;
  const proof = proofs.data?.proofs.find((one) => one.id === hunt.proof);
  if (!hunt.circuit) return null;
  if (proofs.data && proof) return <Standing proof={proof} asked={proofs.data.asked} cutOff={cutOff} />;
  const to = hunt.proof
    ? `/prove-dead/${hunt.proof}`
    : `/prove-dead/new?site=${hunt.site.id}&circuit=${hunt.circuit.id}`;
  return (
    <p className={classes.first}>
      Treat as live: this circuit is not proved dead. <Link to={to}>Prove dead</Link>
    </p>
  );
}

function Standing({ proof, asked, cutOff }: { proof: Proof; asked: Moment; cutOff: boolean }) {
  const now = useProofStanding({ ...proof, asked, stated: proof.stated_by !== "" }, cutOff);
  const link = <Link to={`/prove-dead/${proof.id}`}>{proof.name}</Link>;
  if (now.state === "proved-dead" && now.ms !== null)
    return (
      <p>
        <strong>Proved dead</strong> for <span className="mono">{minutesAndSeconds(now.ms)}</span>: {link}
      </p>
    );
  return (
    <p className={classes.first}>
      Treat as live. {now.word}: {link}
    </p>
  );
}
