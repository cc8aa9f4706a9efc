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
