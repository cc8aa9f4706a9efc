import { Link } from "react-router";
import type { ProofLine } from "../../api/client";
import type { Moment } from "../../api/clock";
import { ProofShape } from "../../parts/ProofState";
import { minutesAndSeconds } from "../../parts/proofStanding";
import { useProofStanding } from "../../parts/useProofStanding";
import work from "../../parts/WorkList.module.css";
import { dayOf } from "../../reading/dates";

/** Proofs as lines: how each stands, what runs out when, what is next. `asked`: when the server was. */
export function ProofList(props: { proofs: ProofLine[]; asked: Moment; cutOff: boolean }) {
  return (
    <ul className={work.list}>
      {props.proofs.map((proof) => (
        <Line key={proof.id} proof={proof} asked={props.asked} cutOff={props.cutOff} />
      ))}
    </ul>
  );
}

function Line({ proof, asked, cutOff }: { proof: ProofLine; asked: Moment; cutOff: boolean }) {
  const now = useProofStanding({ ...proof, asked, stated: proof.stated_by !== "" }, cutOff);
  const ranOut = now.state === "void" && proof.state === "proved-dead";
  const brought = proof.brought_at && `brought in by ${proof.by}, ${dayOf(proof.brought_at)}`;
  return (
    <li data-proof={now.state}>
      <Link to={`/prove-dead/${proof.id}`}>
        <ProofShape state={now.state} />
        <span>
          <strong>{proof.name}</strong>
          <span className="quiet">{proof.site}</span>
          <em>{ranOut ? "Its time is over. Treat as live." : brought || proof.said || proof.next}</em>
        </span>
        <span className={work.right}>
          {now.ms !== null && <time className="mono">{minutesAndSeconds(now.ms)}</time>}
          {now.word}
        </span>
      </Link>
    </li>
  );
}
