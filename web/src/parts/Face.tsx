/** The point as the person sees it: contacts as large targets, probes where they are, pairs measured as lines. */

import { memo, useMemo } from "react";
import type { Practice } from "../api/client";
import { wordOf } from "../api/reference";
import { type FaceLayout, faceOf, letterAt, type Place, probeAt } from "../geometry/face";
import type { Probes } from "../reading/probes";
import classes from "./Face.module.css";

export type MeasuredPair = { from: string; to: string; text: string };

/** With more the values of the pairs stand beside the picture, for lines would cross them. */
export const FEW_CONTACTS = 3;

export const Face = memo(function Face(props: {
  kind: string;
  practice: Practice;
  terminals: string[];
  probes: Probes;
  measured: MeasuredPair[];
  onContact: (terminal: string) => void;
  /** Where nothing is measured to an independent earth it is not drawn. */
  withoutReference?: boolean;
}) {
  const { practice, probes } = props;
  const layout = useMemo(
    () => faceOf(props.kind, practice, props.terminals),
    [props.kind, practice, props.terminals],
  );
  const places = Object.entries(layout.at).filter(([t]) => !props.withoutReference || t !== "REF");
  const letter = (terminal: string) => practice.letters[terminal] ?? terminal;
  const word = (terminal: string) => wordOf(practice, terminal);
  const role = (terminal: string) =>
    terminal === probes.reference
      ? ", reference probe here"
      : terminal === probes.measuring
        ? ", measuring probe here"
        : "";
  return (
    // biome-ignore lint/a11y/useSemanticElements: a picture with controls in it, no fieldset
    <svg
      viewBox={props.withoutReference ? "0 0 300 340" : "0 0 300 410"}
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
          text={props.terminals.length > FEW_CONTACTS ? null : pair.text}
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
});

/** An outlet as it looks, with its letters and nothing to tap. */
export function FacePicture({ practice, terminals }: { practice: Practice; terminals: string[] }) {
  const layout = faceOf("outlet", practice, terminals);
  return (
    <svg viewBox="0 0 300 340" className={classes.face} aria-hidden>
      <Plate layout={layout} />
      {Object.entries(layout.at)
        .filter(([terminal]) => terminal !== "REF")
        .map(([terminal, place]) => (
          <g key={terminal}>
            <Contact place={place} />
            <Letter
              terminal={terminal}
              place={place}
              practice={practice}
              letter={practice.letters[terminal] ?? terminal}
            />
          </g>
        ))}
    </svg>
  );
}

const Plate = memo(function Plate({ layout }: { layout: FaceLayout }) {
  if (layout.plate === "disc")
    return (
      <>
        <rect x="14" y="14" width="272" height="312" rx="18" className={classes.plate} />
        <circle cx="150" cy="165" r="126" className={classes.recess} />
        <rect x="134" y="34" width="32" height="14" rx="3" className={classes.metal} />
      </>
    );
  if (layout.plate === "round")
    return (
      <>
        <circle cx="150" cy="170" r="150" className={classes.plate} />
        <circle cx="150" cy="170" r="132" className={classes.recess} />
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
});

const Contact = memo(function Contact({ place: { x, y, shape, turn } }: { place: Place }) {
  switch (shape) {
    case "slot":
      return <rect x={x - 10} y={y - 28} width="20" height="56" rx="3" className={classes.hole} />;
    case "tall-slot":
      return <rect x={x - 10} y={y - 36} width="20" height="72" rx="3" className={classes.hole} />;
    case "arch":
      return <path d={`M${x - 18} ${y + 20}v-20a18 18 0 0 1 36 0v20z`} className={classes.hole} />;
    case "bar":
      return (
        <rect
          x={x - 28}
          y={y - 10}
          width="56"
          height="20"
          rx="3"
          className={classes.hole}
          transform={turn === undefined ? undefined : `rotate(${turn} ${x} ${y})`}
        />
      );
    case "round":
      return <circle cx={x} cy={y} r="18" className={classes.hole} />;
    case "wide-round":
      return <circle cx={x} cy={y} r="23" className={classes.hole} />;
    case "busbar":
      return (
        <>
          <rect x={x - 86} y={y - 22} width="172" height="44" rx="4" className={classes.hole} />
          {[-66, -40, 40, 66].map((off) => (
            <path
              key={off}
              d={`M${x + off - 6} ${y + 6} ${x + off + 6} ${y - 6}`}
              className={classes.driver}
            />
          ))}
        </>
      );
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
});

const Letter = memo(function Letter(props: {
  terminal: string;
  place: Place;
  practice: Practice;
  letter: string;
}) {
  const { place, practice, terminal, letter } = props;
  const { x, y } = letterAt(place);
  const colour = practice.colours[terminal] ?? "bare";
  return (
    <g>
      <rect
        x={x - 13}
        y={y + 13}
        width="26"
        height="6"
        rx="1.5"
        fill={`var(--ep-insulation-${colour})`}
        stroke="var(--ep-edge)"
        strokeWidth="0.8"
      />
      <text x={x} y={y + 7} className={classes.letter}>
        {letter}
      </text>
    </g>
  );
});

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

function PairLine({ a, b, text }: { a: Place | undefined; b: Place | undefined; text: string | null }) {
  if (!a || !b) return null;
  if (text === null) return <path d={`M${a.x} ${a.y} ${b.x} ${b.y}`} className={classes.pair} />;
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
