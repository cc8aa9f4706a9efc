/** Whether the server can be reached, for every place: since when it cannot, or null. Only an answer says that it can. */

import { useSyncExternalStore } from "react";

let cutOffSince: number | null = null;
const listeners = new Set<() => void>();

function change(since: number | null) {
  if ((since === null) === (cutOffSince === null)) return;
  cutOffSince = since;
  for (const told of listeners) told();
}

export const lineAnswered = () => change(null);
export const lineFailed = () => change(Date.now());

export const lineCutOffSince = () => cutOffSince;

/** Told whenever the line comes or goes. */
export function watchLine(told: () => void) {
  listeners.add(told);
  return () => {
    listeners.delete(told);
  };
}

export const useLine = () => useSyncExternalStore(watchLine, lineCutOffSince);

window.addEventListener("offline", lineFailed);
if (!navigator.onLine) lineFailed();
