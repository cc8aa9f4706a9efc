import type { Hunt } from "../../api/client";
import type { KeepSeen } from "./HuntPlace";
import classes from "./Hunts.module.css";

/** One tap takes back what was told; it stays in the record. */
export function TakeBack(props: { told: Hunt["seen"][number]; keep: KeepSeen; named?: boolean }) {
  const { told, keep, named } = props;
  return (
    <button
      type="button"
      className={classes.back}
      onClick={() => keep({ kind: "taken-back", entry: { event: told.event } }, `Taken back: ${told.text}`)}
    >
      Take back “{told.text}”{named && <span className="quiet"> {told.by}</span>}
    </button>
  );
}
