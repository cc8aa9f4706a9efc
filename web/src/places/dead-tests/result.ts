/** A result in a word, and the shape it wears: the same shapes as verdicts, never colour alone. */

const SHAPES: Record<string, string> = {
  pass: "correct",
  note: "note",
  borderline: "unconfirmed",
  fail: "hazard",
  invalid: "void",
};

const WORDS: Record<string, string> = {
  pass: "Pass",
  note: "Pass, note it",
  borderline: "Borderline",
  fail: "Fails",
  invalid: "Does not count",
};

export const shapeOf = (result: string) => SHAPES[result] ?? "untested";
export const wordOf = (result: string) => WORDS[result] ?? result;

/** What a display showed, as it is written beside its line. */
export function shownOf(test: Record<string, unknown>): string {
  if (test.over_range === true || test.closed_over_range === true) return "OL";
  const of = (key: string, unit: string) => (typeof test[key] === "number" ? `${test[key]} ${unit}` : null);
  return (
    of("measured_ohm", "Ω") ??
    of("closed_ohm", "Ω") ??
    of("measured_mohm", "MΩ") ??
    (typeof test.at_least_mohm === "number" ? `> ${test.at_least_mohm} MΩ` : null) ??
    of("r1", "Ω") ??
    ""
  );
}
