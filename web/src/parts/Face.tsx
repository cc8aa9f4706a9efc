/** The point as the person sees it: contacts as large targets, probes where they are, pairs measured as lines. */

import type { Practice } from "../api/client";
import classes from "./Face.module.css";

export type Probes = { reference: string | null; measuring: string | null };
export type MeasuredPair = { from: string; to: string; text: string };

type Place = {
  x: number;
  y: number;
  shape: "slot" | "tall-slot" | "round" | "arch" | "bar" | "screw" | "off";
};
type Layout = { width: number; height: number; plate: "plate" | "disc" | "strip"; at: Record<string, Place> };

const OFF_REFERENCE: Place = { x: 150, y: 372, shape: "off" };

const OUTLETS: Record<string, Layout> = {
  "north-america": {
    width: 300,
    height: 330,
    plate: "plate",
    at: {
      L: { x: 92, y: 108, shape: "slot" },
      N: { x: 208, y: 108, shape: "tall-slot" },
      PE: { x: 150, y: 240, shape: "arch" },
    },
  },
  continental: {
    width: 300,
    height: 330,
    plate: "disc",
    at: {
      L: { x: 84, y: 165, shape: "round" },
      N: { x: 216, y: 165, shape: "round" },
      PE: { x: 150, y: 284, shape: "bar" },
    },
  },
  british: {
    width: 300,
    height: 330,
    plate: "plate",
    at: {
      PE: { x: 150, y: 86, shape: "tall-slot" },
      N: { x: 84, y: 232, shape: "bar" },
      L: { x: 216, y: 232, shape: "bar" },
    },
  },
};

/** Terminals in a row of screws, for whatever is not an outlet, and whatever has more contacts than one. */
function screws(terminals: string[]): Layout {
  const gap = 300 / (terminals.length + 1);
  const at = terminals.map((t, i): [string, Place] => [
    t,
    { x: gap * (i + 1), y: i % 2 ? 215 : 115, shape: "screw" },
  ]);
  return { width: 300, height: 330, plate: "strip", at: Object.fromEntries(at) };
}

function layoutOf(kind: string, practice: string, terminals: string[]): Layout {
  const outlet = OUTLETS[practice];
  const drawn = kind === "outlet" && outlet !== undefined && terminals.every((t) => t in outlet.at);
  const layout = drawn ? outlet : screws(terminals);
  return { ...layout, at: { ...layout.at, REF: OFF_REFERENCE } };
}

export function Face(props: {
  kind: string;
  practice: Practice;
  terminals: string[];
  probes: Probes;
  measured: MeasuredPair[];
  onContact: (terminal: string) => void;
}) {
  const { practice, probes } = props;
  const layout = layoutOf(props.kind, practice.id, props.terminals);
  const places = Object.entries(layout.at);
  const letter = (terminal: string) => practice.letters[terminal] ?? terminal;
  const word = (terminal: string) => practice.words[terminal] ?? terminal;
  const role = (terminal: string) =>
    terminal === probes.reference
      ? ", reference probe here"
      : terminal === probes.measuring
        ? ", measuring probe here"
        : "";
  return (
    // biome-ignore lint/a11y/useSemanticElements: a picture with controls in it, no fieldset
    <svg
      viewBox="0 0 300 410"
      className={classes.face}
      role="group"
      aria-label="Contacts. Reference first, then measuring."
    >
      <Plate layout={layout} />
      {props.measured.map((pair) => (
        <PairLine
          key={`${pair.from}-${pair.to}`}
          a={layout.at[pair.from]}
          b={layout.at[pair.to]}
          text={pair.text}
        />
      ))}
      {places.map(([terminal, place]) => (
        // biome-ignore lint/a11y/useSemanticElements: no button element can be drawn inside a picture
        <g
          key={terminal}
          role="button"
          tabIndex={0}
          aria-label={`${letter(terminal)}, ${word(terminal)}${role(terminal)}`}
          aria-keyshortcuts={letter(terminal)}
          className={classes.contact}
          onClick={() => props.onContact(terminal)}
          onKeyDown={(event) => {
            if (event.key === "Enter" || event.key === " ") {
              event.preventDefault();
              event.stopPropagation();
              props.onContact(terminal);
            }
          }}
        >
          <circle cx={place.x} cy={place.y} r={37} className={classes.target} />
          <Contact place={place} />
          <Letter terminal={terminal} place={place} practice={practice} letter={letter(terminal)} />
          {terminal === probes.reference && <Probe place={probeAt(place)} kind="reference" />}
          {terminal === probes.measuring && <Probe place={probeAt(place)} kind="measuring" />}
        </g>
      ))}
    </svg>
  );
}

function Plate({ layout }: { layout: Layout }) {
  if (layout.plate === "disc")
    return (
      <>
        <rect x="14" y="14" width="272" height="312" rx="18" className={classes.plate} />
        <circle cx="150" cy="165" r="126" className={classes.recess} />
        <rect x="134" y="34" width="32" height="14" rx="3" className={classes.metal} />
      </>
    );
  return (
    <rect
      x="20"
      y="14"
      width="260"
      height="312"
      rx={layout.plate === "strip" ? 6 : 18}
      className={classes.plate}
    />
  );
}

function Contact({ place: { x, y, shape } }: { place: Place }) {
  switch (shape) {
    case "slot":
      return <rect x={x - 10} y={y - 28} width="20" height="56" rx="3" className={classes.hole} />;
    case "tall-slot":
      return <rect x={x - 10} y={y - 36} width="20" height="72" rx="3" className={classes.hole} />;
    case "arch":
      return <path d={`M${x - 18} ${y + 20}v-20a18 18 0 0 1 36 0v20z`} className={classes.hole} />;
    case "bar":
      return <rect x={x - 28} y={y - 10} width="56" height="20" rx="3" className={classes.hole} />;
    case "round":
      return <circle cx={x} cy={y} r="18" className={classes.hole} />;
    case "screw":
      return (
        <>
          <circle cx={x} cy={y} r="20" className={classes.hole} />
          <path d={`M${x - 11} ${y + 11} ${x + 11} ${y - 11}`} className={classes.driver} />
        </>
      );
    default:
      return (
        <g className={classes.earth}>
          <path d={`M${x} ${y - 20}v14M${x - 20} ${y - 6}h40M${x - 13} ${y + 3}h26M${x - 6} ${y + 12}h12`} />
        </g>
      );
  }
}

function Letter(props: { terminal: string; place: Place; practice: Practice; letter: string }) {
  const { place, practice, terminal, letter } = props;
  const beside = place.x < 150 ? -46 : 46;
  const below = place.x === 150 && place.shape !== "off";
  const x = place.shape === "off" ? place.x - 52 : below ? place.x + 50 : place.x + beside;
  const colour = practice.colours[terminal] ?? "bare";
  return (
    <g>
      <rect
        x={x - 13}
        y={place.y + 13}
        width="26"
        height="6"
        rx="1.5"
        fill={`var(--ep-insulation-${colour})`}
        stroke="var(--ep-edge)"
        strokeWidth="0.8"
      />
      <text x={x} y={place.y + 7} className={classes.letter}>
        {letter}
      </text>
    </g>
  );
}

/** On the contact; beside the sign of an earth that is not on the plate. */
const probeAt = (place: Place): Place => (place.shape === "off" ? { ...place, x: place.x + 48 } : place);

function Probe({ place: { x, y }, kind }: { place: Place; kind: "reference" | "measuring" }) {
  const dark = kind === "reference";
  return (
    <g className={dark ? classes.reference : classes.measuring}>
      <circle cx={x} cy={y} r="17" />
      <text x={x} y={y + 6}>
        {dark ? "−" : "+"}
      </text>
    </g>
  );
}

function PairLine({ a, b, text }: { a: Place | undefined; b: Place | undefined; text: string }) {
  if (!a || !b) return null;
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  const width = text.length * 9.5 + 10;
  return (
    <g>
      <path d={`M${a.x} ${a.y} ${b.x} ${b.y}`} className={classes.pair} />
      <rect
        x={middle.x - width / 2}
        y={middle.y - 13}
        width={width}
        height="25"
        className={classes.pairGround}
      />
      <text x={middle.x} y={middle.y + 6} className={classes.pairValue}>
        {text}
      </text>
    </g>
  );
}
