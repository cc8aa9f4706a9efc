/** A verdict's or a severity's shape: shape first, then word, then colour. */

import { useLine } from "../api/line";

const COLOURS: Record<string, string> = {
  correct: "teal",
  ok: "teal",
  note: "teal",
  safe: "teal",
  unconfirmed: "ochre",
  defect: "slate",
  hazard: "plum",
  danger: "vermilion",
  contradictory: "ink",
  untested: "grey",
  void: "vermilion",
  closed: "grey",
};

/** In rising order of what needs doing. */
export const WORDS: Record<string, string> = {
  correct: "Correct",
  safe: "Safe",
  untested: "Untested",
  unconfirmed: "Not confirmed yet",
  contradictory: "Contradictory",
  defect: "Defect",
  hazard: "Hazard",
  danger: "Danger",
};

const CLEARS = ["correct", "safe"];

/** What is only last known cannot confirm safe: it has the half disc. What warns goes on warning. */
export const lastKnownShape = (verdict: string, onlyLastKnown: boolean) =>
  onlyLastKnown && CLEARS.includes(verdict) ? "unconfirmed" : verdict;

export const colourOf = (kind: string) => `var(--ep-${COLOURS[kind] ?? "grey"})`;

/** The figure inside a 24 by 24 box, for use within another drawing. */
export function VerdictFigure(props: { kind: string }) {
  const kind = lastKnownShape(props.kind, useLine() !== null);
  const colour = colourOf(kind);
  switch (kind) {
    case "correct":
    case "ok":
      return <circle cx="12" cy="12" r="9" fill={colour} />;
    case "safe":
    case "note":
      return <circle cx="12" cy="12" r="8" fill="var(--ep-panel)" stroke={colour} strokeWidth="3.5" />;
    case "unconfirmed":
      return (
        <>
          <circle cx="12" cy="12" r="8.5" fill="var(--ep-panel)" stroke={colour} strokeWidth="2.5" />
          <path d="M12 3.5a8.5 8.5 0 0 1 0 17z" fill={colour} />
        </>
      );
    case "defect":
      return <rect x="4" y="4" width="16" height="16" fill={colour} />;
    case "hazard":
      return <path d="M12 1.5 22.5 12 12 22.5 1.5 12z" fill={colour} />;
    case "danger":
      return <path d="M12 1.5 23.5 22H.5z" fill={colour} />;
    case "contradictory":
      return (
        <>
          <circle cx="12" cy="12" r="11" fill="var(--ep-panel)" />
          <path
            d="M4 9h16M4 15h16M16 4 8 20"
            stroke={colour}
            strokeWidth="2.6"
            strokeLinecap="round"
            fill="none"
          />
        </>
      );
    case "void":
      return (
        <>
          <circle cx="12" cy="12" r="9" fill="var(--ep-panel)" stroke={colour} strokeWidth="2.5" />
          <path d="m6 6 12 12" stroke={colour} strokeWidth="2.8" />
        </>
      );
    case "closed":
      return (
        <rect x="4" y="4" width="16" height="16" fill="var(--ep-panel)" stroke={colour} strokeWidth="2.5" />
      );
    default:
      return (
        <circle
          cx="12"
          cy="12"
          r="8.5"
          fill="var(--ep-panel)"
          stroke={colour}
          strokeWidth="2.5"
          strokeDasharray="2.5 3.2"
        />
      );
  }
}

export function VerdictShape({ kind, size = 24 }: { kind: string; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" style={{ flex: "none" }}>
      <VerdictFigure kind={kind} />
    </svg>
  );
}
