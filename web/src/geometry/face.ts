/** Where the contacts of an outlet, a strip of terminals or a board are, as the person in front of it sees them. */

import type { Practice } from "../api/client";

/** A place in a picture. */
export type Spot = { x: number; y: number };

export type Place = {
  x: number;
  y: number;
  shape: "slot" | "tall-slot" | "round" | "wide-round" | "arch" | "bar" | "screw" | "busbar" | "off";
  /** Degrees it is turned by. */
  turn?: number;
  /** Its letter stands under it, for others are beside it. */
  letterBelow?: boolean;
};

export type FaceLayout = {
  plate: "plate" | "disc" | "round" | "strip";
  at: Record<string, Place>;
};

const OFF_REFERENCE: Place = { x: 150, y: 372, shape: "off" };
const CENTRE = { x: 150, y: 170 };
const RADIUS = 72;

/** Contacts on a circle with the earth at the bottom: pins where plugs have pins, blades where they have blades. */
function onACircle(practice: Practice, terminals: string[]): FaceLayout {
  const order = ["PE", ...terminals.filter((t) => t !== "PE")];
  const at = order.map((terminal, i): [string, Place] => {
    const angle = Math.PI / 2 + (2 * Math.PI * i) / order.length;
    const where = { x: CENTRE.x + RADIUS * Math.cos(angle), y: CENTRE.y + RADIUS * Math.sin(angle) };
    if (practice.round_outlet_has === "bars")
      return [terminal, { ...where, shape: "bar", turn: (angle * 180) / Math.PI + 90 }];
    return [terminal, { ...where, shape: terminal === "PE" ? "wide-round" : "round" }];
  });
  return { plate: "round", at: Object.fromEntries(at) };
}

/** Terminals in a row of screws, for whatever is not an outlet. */
function screws(terminals: string[]): FaceLayout {
  const gap = 300 / (terminals.length + 1);
  const at = terminals.map((t, i): [string, Place] => [
    t,
    { x: gap * (i + 1), y: i % 2 ? 215 : 95, shape: "screw", letterBelow: true },
  ]);
  return { plate: "strip", at: Object.fromEntries(at) };
}

/** The device's terminals above, the neutral and the earth bar below. */
function board(terminals: string[]): FaceLayout {
  const bars: string[] = terminals.filter((t) => t === "N" || t === "PE");
  const rest = terminals.filter((t) => !bars.includes(t));
  const gap = 260 / (rest.length + 1);
  return {
    plate: "strip",
    at: Object.fromEntries([
      ...rest.map((t, i): [string, Place] => [
        t,
        { x: 20 + gap * (i + 1), y: 70, shape: "screw", letterBelow: true },
      ]),
      ...bars.map((t, i): [string, Place] => [t, { x: 150, y: 190 + 74 * i, shape: "busbar" }]),
    ]),
  };
}

/** The practice's own outlet with these contacts, where it has one. */
function outlet(practice: Practice, terminals: string[]): FaceLayout | undefined {
  const face = practice.outlets[terminals.join(" ")];
  if (!face) return undefined;
  const at = Object.entries(face.contacts).map(([terminal, contact]): [string, Place] => [
    terminal,
    { x: contact.x, y: contact.y, shape: contact.shape, letterBelow: contact.letter_below },
  ]);
  return { plate: face.plate, at: Object.fromEntries(at) };
}

const SEVERAL_LINES = 3;

export function faceOf(kind: string, practice: Practice, terminals: string[]): FaceLayout {
  const lines = terminals.filter((t) => /^L\d$/.test(t)).length;
  const drawn = outlet(practice, terminals);
  const round = terminals.includes("PE") && (lines >= SEVERAL_LINES || (lines > 0 && !drawn));
  const layout =
    kind === "outlet" && drawn
      ? drawn
      : kind === "outlet" && round
        ? onACircle(practice, terminals)
        : kind === "board"
          ? board(terminals)
          : screws(terminals);
  return { ...layout, at: { ...layout.at, REF: OFF_REFERENCE } };
}

/** Outwards of the contact, or right of one in the middle; at a busbar's end; under what has others beside it. */
export function letterAt({ x, y, shape, letterBelow }: Place): Spot {
  if (letterBelow) return { x, y: y + 38 };
  if (shape === "off") return { x: x - 52, y };
  if (shape === "busbar") return { x: x + 108, y };
  const middle = Math.abs(x - CENTRE.x) < 20;
  return { x: middle ? x + 50 : x + (x < CENTRE.x ? -46 : 46), y };
}

/** On the contact; beside the sign of an earth that is not on the plate. */
export const probeAt = (place: Place): Place =>
  place.shape === "off" ? { ...place, x: place.x + 48 } : place;
