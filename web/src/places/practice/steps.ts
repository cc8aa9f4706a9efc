/** How hard a case is, from the first three voltages on. */

export const STEPS: Record<number, string> = {
  1: "First: three voltages",
  2: "Second: when a tester misleads",
  3: "Third: several lines and loads",
  4: "Fourth: everything at once",
};
