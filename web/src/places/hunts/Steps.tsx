import classes from "./Hunts.module.css";

/** What to do, one after another. */
export function Steps({ steps }: { steps: string[] }) {
  if (steps.length === 0) return null;
  if (steps.length === 1) return <p>{steps[0]}</p>;
  return (
    <ol className={classes.steps}>
      {steps.map((step) => (
        <li key={step}>{step}</li>
      ))}
    </ol>
  );
}
