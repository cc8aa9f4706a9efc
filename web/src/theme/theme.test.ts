import { expect, test } from "vitest";
import { DARK, LIGHT } from "./theme";

/** Relative luminance, WCAG 2.2. */
function luminance(colour: string): number {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const share = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

function contrast(one: string, other: string): number {
  const [light = 0, dark = 0] = [luminance(one), luminance(other)].sort((a, b) => b - a);
  return (light + 0.05) / (dark + 0.05);
}

const READ = ["text", "quiet", "teal", "ochre", "slate", "plum", "vermilion", "grey", "ink"] as const;

test.each([
  ["daylight", LIGHT],
  ["dark", DARK],
])("whatever is read by its colour stands out 7 to 1 in %s, the quiet too", (_, scheme) => {
  for (const name of READ)
    for (const ground of [scheme.ground, scheme.panel])
      expect(contrast(scheme[name], ground), `${name} on ${ground}`).toBeGreaterThanOrEqual(7);
});
