import { notifications } from "@mantine/notifications";
import { useEffect, useRef } from "react";
import { useProofs } from "../api/queries";
import { timeOf } from "../reading/dates";
import { callAttention } from "./callAttention";
import { alarmsDue } from "./proofAlarms";

const LOOK_MS = 1_000;

/** On every place: whoever works under a proof of isolation is told before its time is over, and when it is. */
export function ProofWatch() {
  const { data } = useProofs();
  const told = useRef(new Set<string>());
  useEffect(() => {
    if (!data) return;
    const look = () => {
      for (const { name, ms, key } of alarmsDue(data.proofs, data.asked, told.current)) {
        const over = ms === 0;
        const title = over ? `${name}: no longer valid` : `${name}: valid until ${timeOf(Date.now() + ms)}`;
        const body = over ? "Its time is over. Treat as live." : "Confirm that you are here, or come off.";
        const color = over ? "var(--ep-vermilion)" : "var(--ep-ochre)";
        notifications.show({ title, message: body, color, autoClose: !over && ms });
        callAttention(over ? "over" : "soon", title, body, key);
      }
    };
    look();
    const timer = setInterval(look, LOOK_MS);
    return () => clearInterval(timer);
  }, [data]);
  return null;
}
