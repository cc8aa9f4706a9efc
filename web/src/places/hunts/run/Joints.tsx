import type { AlongRun } from "../../../api/client";

/** Poor joints that were measured. */
export function Joints({ run }: { run: AlongRun }) {
  return run.joints.map((joint) => (
    <p key={joint}>
      <strong>{joint}</strong>
    </p>
  ));
}
