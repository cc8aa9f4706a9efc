import type { SignedCircuit } from "../../api/client";
import { DeviceSymbol } from "../../parts/DeviceSymbol";
import run from "../../parts/Run.module.css";
import { VerdictShape, WORDS } from "../../parts/VerdictShape";
import classes from "./Report.module.css";

/** The run as it was when it was signed: from its device through its points in cable order. */
export function SignedRun({ circuit }: { circuit: SignedCircuit }) {
  return (
    <ol className={`${run.run} ${run.full} ${classes.run}`} aria-label={`${circuit.name}, the run`}>
      <li className={`${run.stop} ${run.device}`}>
        <DeviceSymbol />
      </li>
      {circuit.points.map((point) => (
        <li key={point.id} className={run.stop}>
          <span className={run.point}>
            <VerdictShape kind={point.verdict} size={26} />
            <span className={run.label}>{point.name}</span>
            <span className={run.word}>{WORDS[point.verdict]}</span>
          </span>
        </li>
      ))}
    </ol>
  );
}
