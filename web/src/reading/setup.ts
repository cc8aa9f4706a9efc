/** What is in the hand: tester, function, probes, circumstances and what has been typed so far. */

import { useReducer } from "react";
import type { Bench, Entry, NextTest, Reading, Tester } from "../api/client";
import { theReference } from "../api/reference";
import { type Clamp, clamped, clampOf, UNCLAMPED } from "./clamp";
import { isAsIs } from "./entry";
import { functionNamed, functionOf, type TesterFunction } from "./functions";
import type { Probes } from "./probes";
import { A_ROD, earthIn, type ReferenceEarth, withEarth } from "./referenceEarth";
import { typedNumber } from "./typedNumber";

export type Load = "none" | "here" | "elsewhere";

export type Setup = {
  tester: string | null;
  /** What the tester is set to, by its id. */
  what: string;
  probes: Probes;
  load: Load;
  amperes: string;
  /** Which contacts the load is between where several lines come: as "L1 N", empty for the pair measured. */
  loadBetween: string;
  /** Whatever else there is on the circuit was seen to be switched off or unplugged. */
  nothingElseOn: boolean;
  deviceOpen: boolean;
  /** Off its bar at the board, or opened by the device: for ohms only. */
  neutralLifted: boolean;
  /** Of a current: what it rose and fell to, the turns through the clamp, where and round what it is closed. */
  clamp: Clamp;
  /** What the reference earth is, where a probe is on one. */
  earth: ReferenceEarth;
  typed: string;
  unit: string;
  correcting: string | null;
};

export type Change =
  | { do: "type"; typed: string }
  | { do: "unit"; unit: string }
  | { do: "tester"; tester: Tester | null }
  | { do: "function"; what: string }
  | { do: "contact"; terminal: string }
  | { do: "load"; load: Load }
  | { do: "amperes"; amperes: string }
  | { do: "load between"; pair: string }
  | { do: "nothing else on"; said: boolean }
  | { do: "unplugged"; said: boolean }
  | { do: "pair"; measuring: string; reference: string }
  | { do: "device"; open: boolean }
  | { do: "neutral"; lifted: boolean }
  | { do: "clamp"; clamp: Partial<Clamp> }
  | { do: "earth"; earth: Partial<ReferenceEarth> }
  | { do: "to the board" }
  | { do: "test"; test: NextTest; tester: string | null }
  | { do: "correct"; reading: Reading }
  | { do: "stop correcting" }
  | { do: "recorded"; readings: Reading[] }
  | { do: "put back"; setup: Setup };

const USUAL_AMPERES = "10";

export function apply(setup: Setup, change: Change, bench: Pick<Bench, "terminals" | "functions">): Setup {
  switch (change.do) {
    case "load between":
      return { ...setup, loadBetween: change.pair };
    case "nothing else on":
      return { ...setup, nothingElseOn: change.said, deviceOpen: false };
    case "unplugged":
      return { ...setup, nothingElseOn: change.said };
    case "pair":
      return { ...setup, probes: { measuring: change.measuring, reference: change.reference } };
    case "type":
      return { ...setup, typed: change.typed };
    case "unit":
      return { ...setup, unit: change.unit };
    case "tester": {
      const able = functionsHere(bench, change.tester?.id);
      const what = able.includes(setup.what) ? setup.what : (able[0] ?? setup.what);
      return { ...withFunction(setup, what), tester: change.tester?.id ?? null };
    }
    case "function":
      return withFunction(setup, change.what);
    case "contact":
      return { ...setup, probes: placed(setup, change.terminal) };
    case "load":
      return {
        ...setup,
        load: change.load,
        nothingElseOn: change.load !== "none" && setup.nothingElseOn,
        deviceOpen: false,
      };
    case "amperes":
      return { ...setup, amperes: change.amperes };
    case "device":
      return { ...setup, deviceOpen: change.open, load: "none", nothingElseOn: false };
    case "neutral":
      return { ...setup, neutralLifted: change.lifted };
    case "clamp":
      return { ...setup, clamp: { ...setup.clamp, ...change.clamp } };
    case "earth":
      return { ...setup, earth: { ...setup.earth, ...change.earth } };
    case "to the board":
      return { ...setup, probes: { ...setup.probes, reference: boardEnd(setup.probes.measuring) } };
    case "test":
      return forTest(setup, change.test, change.tester);
    case "correct":
      return forCorrection(setup, change.reading);
    case "stop correcting":
      return { ...setup, correcting: null, typed: "" };
    case "recorded":
      return {
        ...setup,
        typed: "",
        clamp: { ...setup.clamp, max: "", min: "" },
        correcting: null,
        probes:
          functionNamed(setup.what).probes === "one"
            ? setup.probes
            : (nextPair(bench.terminals, change.readings) ?? setup.probes),
      };
    case "put back":
      return { ...setup, ...change.setup };
  }
}

/** `tester`: the one in the hand, if any was named; `begun`: what was half typed here, with one of the `testers`. */
export function useSetup(bench: Bench, tester: Tester | undefined, begun: Setup | null, testers: Tester[]) {
  return useReducer(
    (setup: Setup, change: Change): Setup => apply(setup, change, bench),
    null,
    (): Setup => {
      const what = functionsHere(bench, tester?.id)[0] ?? functionsHere(bench, undefined)[0] ?? "";
      const usual: Setup = {
        tester: tester?.id ?? null,
        what,
        probes: nextPair(bench.terminals, bench.readings) ?? { reference: null, measuring: null },
        load: "none",
        amperes: USUAL_AMPERES,
        loadBetween: "",
        nothingElseOn: false,
        deviceOpen: false,
        neutralLifted: false,
        clamp: UNCLAMPED,
        earth: A_ROD,
        typed: "",
        unit: functionNamed(what).units[0] ?? "",
        correcting: null,
      };
      return begun ? takenUp(begun, usual, bench, testers) : usual;
    },
  );
}

/** What was half typed, perhaps days ago on an older page: what there is no more, or was not then, is as usual. */
export function takenUp(
  begun: Partial<Setup>,
  usual: Setup,
  bench: Pick<Bench, "functions">,
  testers: Pick<Tester, "id">[],
): Setup {
  const tester = testers.find((t) => t.id === begun.tester)?.id ?? usual.tester;
  if (!functionsHere(bench, tester).includes(begun.what ?? "")) return usual;
  return { ...usual, ...begun, tester, clamp: { ...usual.clamp, ...begun.clamp } };
}

/** What a tester can be set to at this point; without one what a proved multimeter can. A newer server may know more. */
export const functionsHere = (bench: Pick<Bench, "functions">, tester: string | null | undefined): string[] =>
  (bench.functions[tester ?? ""] ?? bench.functions[""] ?? []).filter((id) =>
    theReference().functions.some((f) => f.id === id),
  );

/** Whether a conductor has an end at the board under a name of its own. */
export const hasBoardEnd = (terminal: string | null) =>
  terminal !== null && theReference().with_board_end.includes(terminal);

const boardEnd = (terminal: string | null) => (terminal === null ? null : `BOARD-${terminal}`);

/** The first pair of contacts nobody has measured as found. */
function nextPair(terminals: string[], readings: Reading[]): Probes | null {
  const done = readings
    .filter((r) => r.status === "counts" && isAsIs(r.entry))
    .map((r) => [r.entry.from, r.entry.to].sort().join());
  for (const [i, measuring] of terminals.entries())
    for (const reference of terminals.slice(i + 1))
      if (!done.includes([measuring, reference].sort().join())) return { measuring, reference };
  return null;
}

function withFunction(setup: Setup, what: string): Setup {
  const { dead, probes, units } = functionNamed(what);
  return {
    ...setup,
    what,
    probes: probes === "one" ? { ...setup.probes, reference: null } : setup.probes,
    unit: units[0] ?? "",
    deviceOpen: dead,
    neutralLifted: dead && setup.neutralLifted,
    load: dead ? "none" : setup.load,
    nothingElseOn: dead === functionNamed(setup.what).dead && setup.nothingElseOn,
  };
}

/** Reference first, then measuring; a third contact begins anew. A detector has one point only. */
function placed({ probes, what }: Setup, terminal: string): Probes {
  if (functionNamed(what).probes === "one") return { reference: null, measuring: terminal };
  if (probes.reference !== null && probes.measuring === null && terminal !== probes.reference)
    return { ...probes, measuring: terminal };
  return { reference: terminal, measuring: null };
}

function forTest(setup: Setup, test: NextTest, tester: string | null): Setup {
  const { quantity, from, to } = test;
  const f = functionOf({ ...test.circumstance, quantity, from, to } as Partial<Entry>);
  const what = f?.id ?? setup.what;
  const { load_here_a, load_elsewhere_a, nothing_else_on, device, neutral } = test.circumstance;
  return {
    ...setup,
    tester: tester ?? setup.tester,
    what,
    unit: functionNamed(what).units[0] ?? "",
    probes: probesOf(f, test),
    clamp: { ...UNCLAMPED, atBoard: f?.at_board === true && f.extremes },
    load: load_here_a ? "here" : load_elsewhere_a ? "elsewhere" : "none",
    amperes: String(load_here_a ?? load_elsewhere_a ?? setup.amperes),
    loadBetween: "",
    nothingElseOn: nothing_else_on === true,
    deviceOpen: device === "open",
    neutralLifted: neutral === "lifted",
    typed: "",
    correcting: null,
  };
}

function forCorrection(setup: Setup, reading: Reading): Setup {
  const entry = reading.entry;
  const f = functionOf(entry);
  const what = f?.id ?? setup.what;
  return {
    ...setup,
    tester: reading.tester ?? setup.tester,
    what,
    unit: entry.unit ?? functionNamed(what).units[0] ?? "",
    probes: probesOf(f, entry),
    ...(f?.extremes && clampOf(entry)),
    load: entry.load_here_a != null ? "here" : entry.load_elsewhere_a != null ? "elsewhere" : "none",
    amperes: String(entry.load_here_a ?? entry.load_elsewhere_a ?? setup.amperes),
    loadBetween: entry.load_between?.join(" ") ?? "",
    nothingElseOn: entry.nothing_else_on === true,
    earth: earthIn(entry),
    deviceOpen: entry.device === "open",
    neutralLifted: entry.neutral === "lifted",
    typed: "",
    correcting: reading.id,
  };
}

/** Where the probes are: at the board itself, and where a clamp is closed, by the contacts' names. */
function probesOf(
  f: TesterFunction | undefined,
  { from, to }: Pick<NextTest, "from" | "to"> | Entry,
): Probes {
  const contact = (end: string | null | undefined) => end?.replace("BOARD-", "") ?? null;
  const measuring = f?.at_the_board || f?.extremes ? contact(from) : (from ?? null);
  return { measuring, reference: f?.at_the_board ? contact(to) : (to ?? null) };
}

/** Whether all that a reading needs is said but what was seen. `named`: which tester is in the hand. */
export function isReady({ what, probes: { measuring, reference } }: Setup, named: boolean): boolean {
  const { probes } = functionNamed(what);
  return named && (probes === "none" || (measuring !== null && (probes === "one" || reference !== null)));
}

/** Whether there is a number to record: Enter on nothing is no reading. */
export const isTyped = ({ what, typed, clamp }: Setup) =>
  typed.trim() !== "" || (functionNamed(what).extremes && (clamp.max + clamp.min).trim() !== "");

/** The entry to record, from what is in the hand and what was seen. */
export function entryFor(
  setup: Setup,
  terminals: string[],
  what: Partial<Entry> = { value: typedNumber(setup.typed) },
): Entry {
  const f = functionNamed(setup.what);
  const end = (terminal: string | null) =>
    (f.at_the_board && hasBoardEnd(terminal) ? boardEnd(terminal) : terminal) ?? undefined;
  const probes =
    f.probes === "none" ? {} : { from: end(setup.probes.measuring), to: end(setup.probes.reference) };
  const seen: Entry = { quantity: f.quantity, ...probes, ...what, ...f.fixes };
  const entry = f.reference ? withEarth(seen, setup.earth) : seen;
  if (setup.unit && f.units.length > 0) entry.unit ??= setup.unit as Entry["unit"];
  if (f.load) {
    if (setup.load === "here") entry.load_here_a = typedNumber(setup.amperes);
    if (setup.load === "elsewhere") entry.load_elsewhere_a = typedNumber(setup.amperes);
    if (setup.load !== "none" && setup.loadBetween) entry.load_between = setup.loadBetween.split(" ");
  }
  if (setup.nothingElseOn && (f.load || f.unplugged)) entry.nothing_else_on = true;
  if (setup.deviceOpen && f.device) entry.device = "open";
  if (setup.neutralLifted && f.neutral_lifted) entry.neutral = "lifted";
  return f.extremes ? { ...entry, ...clamped(setup, terminals) } : entry;
}
