/**
 * The tester this person last named for a use, on this device: none is taken that nobody chose. Empty is the typed meter,
 * one that is not on record.
 */

const KEY = "even-probe.tester ";

export type Use = "live" | "ohms" | "insulation";

export const lastTester = (use: Use): string | null => localStorage.getItem(KEY + use) || null;

export const rememberTester = (use: Use, tester: string | null): void =>
  localStorage.setItem(KEY + use, tester ?? "");

export const forgetTesters = (): void => {
  for (const use of ["live", "ohms", "insulation"] as const) localStorage.removeItem(KEY + use);
};

/** Of those there are, the one last named; else none. */
export const lastOf = <T extends { id: string }>(use: Use, testers: T[]): T | undefined => {
  const last = lastTester(use);
  return testers.find((tester) => tester.id === last);
};
