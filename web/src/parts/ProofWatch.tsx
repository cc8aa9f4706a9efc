import { notifications } from "@mantine/notifications";
import { useEffect, useRef } from "react";
import { useProofs } from "../api/queries";
import { alert } from "./alert";
import { alarmsDue } from "./proofAlarms";

const LOOK_MS = 1_000;

/** On every place: whoever works under a proof of isolation is told before its time is over, and when it is. */
export function ProofWatch() {
  const { data } = useProofs();
  const told = useRef(new Set<string>());
  useEffect(() => {
    if (!data) return;
    const look = () => {
      for (const { name, over, key } of alarmsDue(data.proofs, data.asked, told.current)) {
        const title = over ? `${name}: no longer valid` : `${name}: 5 min left`;
        const body = over ? "Its time is over. Treat as live." : "Confirm that you are here, or come off.";
        notifications.show({
          title,
          message: body,
          color: over ? "var(--ep-vermilion)" : "var(--ep-ochre)",
          autoClose: !over && 60_000,
        });
        alert(over ? "over" : "soon", title, body, key);
      }
    };
    look();
    const timer = setInterval(look, LOOK_MS);
    return () => clearInterval(timer);
  }, [data]);
  return null;
}
