import { Link } from "react-router";
import { useOldestSeen } from "../api/freshness";
import { useLine } from "../api/line";
import { useOutbox } from "../api/outbox/useOutbox";
import { LastKnown } from "./LastKnown";
import classes from "./LineBar.module.css";
import { useLate } from "./useLate";

/** On every place: that the server cannot be reached, how much waits to be sent, and whether the browser keeps it. */
export function LineBar() {
  const cutOff = useLine();
  const { list, forgetful } = useOutbox();
  const refused = list.filter((one) => one.problem !== "").length;
  const waits = list.length - refused;
  const late = useLate(waits > 0);
  const seen = useOldestSeen();
  if (cutOff === null && refused === 0 && !late) return null;
  return (
    <div className={classes.bar} role="status">
      {cutOff !== null && (
        <strong>
          No line to the server. <LastKnown since={seen ?? cutOff} /> Treat as live.
        </strong>
      )}
      {list.length > 0 && (
        <Link to="/waiting">
          {[waits > 0 && `${waits} waiting to be sent`, refused > 0 && `${refused} not recorded`]
            .filter(Boolean)
            .join(", ")}
        </Link>
      )}
      {forgetful && list.length > 0 && (
        <strong>This browser keeps nothing. Leave this page open until all of it is sent.</strong>
      )}
    </div>
  );
}
