import classes from "./Hunts.module.css";
import { Steps } from "./Steps";

/** What to do there, for whoever has not done it before. */
export function How({ steps }: { steps: string[] }) {
  return (
    <details className={classes.fold}>
      <summary>How is it done?</summary>
      <Steps steps={steps} />
    </details>
  );
}
