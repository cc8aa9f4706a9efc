/** The contacts an outlet or a box can have, in words, on a supply of these lines. */
export function contactChoices(lines: string[]): Record<string, string[]> {
  return {
    "One line, neutral, earth": ["L", "N", "PE"],
    ...(lines.length > 1 && {
      "Two lines, neutral, earth": ["L1", "L2", "N", "PE"],
      "Two lines, earth": ["L1", "L2", "PE"],
    }),
    ...(lines.length > 2 && {
      "Three lines, neutral, earth": [...lines, "N", "PE"],
      "Three lines, earth": [...lines, "PE"],
    }),
    "One line, neutral, earth and casing": ["L", "N", "PE", "CASE"],
  };
}
