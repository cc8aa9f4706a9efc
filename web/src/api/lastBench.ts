/** The point last on the Bench, so that the rail leads back to it. A convenience of this browser only. */

const KEY = "even-probe.last-bench";

export const lastBench = (): string | null => localStorage.getItem(KEY);

export const rememberBench = (pointId: string): void => localStorage.setItem(KEY, pointId);

export const forgetBench = (): void => localStorage.removeItem(KEY);
