import type { Practice, Sweep } from "../../api/client";
import classes from "./Sweep.module.css";
import { WalkLine } from "./WalkLine";

/** Walks with a detector that were recorded here, and where the alarm ends. */
export function Walked({ sweeps, practice }: { sweeps: Sweep[]; practice: Practice }) {
  if (sweeps.length === 0) return null;
  return (
    <section className={classes.walked} aria-labelledby="walked">
      <h2 className="zone-title" id="walked">
        Walked along with a detector
      </h2>
      {sweeps.map((sweep) => (
        <div key={sweep.reading}>
          <p>
            <b>{practice.letters[sweep.terminal] ?? sweep.terminal}</b> {sweep.text}
          </p>
          <WalkLine stations={sweep.stations} />
        </div>
      ))}
    </section>
  );
}
