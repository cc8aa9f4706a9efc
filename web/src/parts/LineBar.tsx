import { Link } from "react-router";
import { lastKnown } from "../api/freshness";
import { useLine } from "../api/line";
import { useWaiting } from "../api/useWaiting";
import classes from "./LineBar.module.css";

/** On every place: that the server cannot be reached, and how many readings wait to be sent. */
export function LineBar() {
  const cutOff = useLine();
  const { list } = useWaiting();
  const refused = list.filter((one) => one.problem !== "").length;
  const waits = list.length - refused;
  const first = list.find((one) => one.problem !== "") ?? list[0];
  if (cutOff === null && list.length === 0) return null;
  return (
    <div className={classes.bar} role="status">
      {cutOff !== null && <strong>No line to the server. {lastKnown(cutOff)} Treat as live.</strong>}
      {first && (
        <Link to={`/bench/${first.point}`}>
          {[waits > 0 && `${waits} waiting to be sent`, refused > 0 && `${refused} not recorded`]
            .filter(Boolean)
            .join(", ")}
        </Link>
      )}
    </div>
  );
}
