/** The points last on the Bench, the newest first: what somebody goes back to. A convenience of this browser only. */

import { keptAs } from "./sandbox";

const KEY = keptAs(".last-points");
const MOST = 6;

export function lastPoints(): string[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "[]") as string[];
  } catch {
    return [];
  }
}

const keep = (points: string[]) => localStorage.setItem(KEY, JSON.stringify(points.slice(0, MOST)));

export const rememberPoint = (id: string): void =>
  keep([id, ...lastPoints().filter((other) => other !== id)]);

export const forgetPoint = (id: string): void => keep(lastPoints().filter((other) => other !== id));

export const forgetPoints = (): void => localStorage.removeItem(KEY);
