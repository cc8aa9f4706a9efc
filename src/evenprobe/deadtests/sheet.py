"""The sheet of a circuit: what is tested, in the order of the work, and what each line starts out with.

Look, loads out, leads nulled, what must be joined, what must not, the device, insulation, discharge, all clear
(IEC 60364-6 clause 6.4.3 has the same order).
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import combinations
from typing import Any

from evenprobe.limits.dead_tests import InsulationRule, insulation_rule
from evenprobe.practices import Practice
from evenprobe.supplies import SupplySystem
from evenprobe.wiring import Terminal
from evenprobe.wiring.points import BOARD_END, LINES


class Step(StrEnum):
    LOOK = "look"
    LOADS = "loads"
    LEADS = "leads"
    CONTINUITY = "continuity"
    SEPARATION = "separation"
    DEVICE = "device"
    INSULATION = "insulation"
    DISCHARGE = "discharge"
    CLEAR = "clear"


@dataclass(frozen=True)
class StepWords:
    title: str
    how: str


STEPS: dict[Step, StepWords] = {
    Step.LOOK: StepWords("Look", "Before any meter: what is wrong can often be seen."),
    Step.LOADS: StepWords(
        "Loads out",
        "Unplug everything, lamps and electronics out, switches closed, neutral off.",
    ),
    Step.LEADS: StepWords("Null the leads", "Tips together. What they show is taken off every reading in ohms."),
    Step.CONTINUITY: StepWords("Joined", "Each conductor end to end: what must be joined is, and how well."),
    Step.SEPARATION: StepWords("Not joined", "Highest ohm range, neutral off its bar: over-range is wanted."),
    Step.DEVICE: StepWords("The device", "Open: over-range. Closed: next to nothing. It latches."),
    Step.INSULATION: StepWords(
        "Insulation", "Wait until it is steady. Keep off: the conductors carry the test voltage."
    ),
    Step.DISCHARGE: StepWords("Discharge", "Through the tester, until it shows under 25 V. A long cable holds charge."),
    Step.CLEAR: StepWords(
        "Clear to energise", "Boxes closed, people told, locks off by whoever put them. One attempt."
    ),
}


@dataclass(frozen=True)
class LookItem:
    id: str
    title: str


LOOK_FOR: tuple[LookItem, ...] = (
    LookItem("bare-ends", "Bare ends: none longer than their clamp"),
    LookItem("clamp", "No clamp biting insulation"),
    LookItem("screws", "No loose screw"),
    LookItem("sleeves", "No sleeve missing"),
    LookItem("burnt", "Nothing burnt"),
    LookItem("brittle", "Nothing brittle"),
    LookItem("colours", "No odd colours"),
    LookItem("extra", "No wire too many"),
)


@dataclass(frozen=True)
class SheetPoint:
    id: str
    name: str
    terminals: tuple[Terminal, ...]
    length_m: float | None = None


@dataclass(frozen=True)
class SheetCircuit:
    """`wiring`: `ordinary` or a kind with an insulation rule of its own. `previous`: MΩ at 20 °C by pair, `L-PE`."""

    practice: Practice
    system: SupplySystem
    points: tuple[SheetPoint, ...]
    conductor: str | None = None
    wiring: str = "ordinary"
    ring: bool = False
    temperature_c: float | None = None
    previous: Mapping[str, float] = field(default_factory=dict)

    @property
    def rule(self) -> InsulationRule:
        return insulation_rule(self.wiring, self.system)

    @property
    def conductors(self) -> tuple[Terminal, ...]:
        """Lines, neutral and protective conductor that come to any of its points."""
        here = {t for p in self.points for t in p.terminals}
        return tuple(t for t in (*LINES, Terminal.N, Terminal.PE) if t in here)


@dataclass(frozen=True)
class Line:
    """One thing to test. `preset`: what of the tests file's entry is known before it is measured."""

    id: str
    step: Step
    kind: str
    title: str
    preset: Mapping[str, Any]
    why: str = ""
    point: str | None = None


def lines_of(circuit: SheetCircuit) -> tuple[Line, ...]:
    """Every line, in the order of the work."""
    pairs = list(combinations(circuit.conductors, 2))
    joined = [_ring(circuit)] if circuit.ring else _end_to_end(circuit)
    return (
        *joined,
        *(_separation(circuit, a, b) for a, b in pairs),
        Line("device", Step.DEVICE, "closed-contact", _device(circuit).capitalize(), {"what": _device(circuit)}),
        *(_insulation(circuit, a, b) for a, b in pairs),
    )


def before_harm(step: Step, *, dead: bool, loads_out: bool | None, rule: InsulationRule) -> tuple[str, ...]:
    """What to say before a test of that step is made, worst first. `loads_out` None: nobody said."""
    found = []
    meters = step in (Step.LEADS, Step.CONTINUITY, Step.SEPARATION, Step.DEVICE, Step.INSULATION)
    if meters and not dead and step is not Step.LEADS:
        found.append("Not proved dead. Ohms on a live circuit break the meter and may hurt you. Prove it dead first.")
    if step is Step.INSULATION and loads_out is not True:
        known = "Loads are still in." if loads_out is False else "Nobody said that the loads are out."
        found.append(f"{known} {rule.test_volts:g} V DC destroys electronics that stay connected.")
    return tuple(found)


def pair_id(a: Terminal, b: Terminal) -> str:
    return f"{a}-{b}"


def _device(circuit: SheetCircuit) -> str:
    return circuit.practice.words["protective device"]


def _letter(circuit: SheetCircuit, terminal: Terminal) -> str:
    return circuit.practice.letters[terminal]


def _end_to_end(circuit: SheetCircuit) -> list[Line]:
    """The protective conductor to every point; lines and neutral to the furthest, which has them all in it."""
    furthest = max(circuit.points, key=lambda p: p.length_m or 0.0, default=None)
    found = []
    for point in circuit.points:
        for terminal in (Terminal.PE, *LINES, Terminal.N):
            protective = terminal is Terminal.PE
            if terminal not in point.terminals or not (protective or point is furthest):
                continue
            preset: dict[str, Any] = {"from": str(terminal), "conductor": circuit.conductor}
            preset |= {"length_m": point.length_m, "temperature_c": circuit.temperature_c}
            if terminal in BOARD_END:
                preset["to"] = str(BOARD_END[terminal])
            found.append(
                Line(
                    f"joined {terminal} {point.id}",
                    Step.CONTINUITY,
                    "continuity",
                    f"{_letter(circuit, terminal)} to {point.name}",
                    preset,
                    why="" if protective else "The furthest point has the whole run in it.",
                    point=point.id,
                )
            )
    return found


def _ring(circuit: SheetCircuit) -> Line:
    outlets = [{"id": p.id, "label": p.name} for p in circuit.points]
    why = "Ends first; then cross-joined, each outlet reads a quarter of both ends."
    return Line("ring", Step.CONTINUITY, "ring", "The ring, ends and outlets", {"points": outlets}, why)


def _separation(circuit: SheetCircuit, a: Terminal, b: Terminal) -> Line:
    preset = {"system": circuit.system.id, "from": str(a), "to": str(b), "conductor": circuit.conductor}
    title = f"{_letter(circuit, a)} to {_letter(circuit, b)}"
    return Line(f"apart {pair_id(a, b)}", Step.SEPARATION, "separation", title, preset)


def _insulation(circuit: SheetCircuit, a: Terminal, b: Terminal) -> Line:
    rule = circuit.rule
    preset = {
        "system": circuit.system.id,
        "circuit": circuit.wiring,
        "from": str(a),
        "to": str(b),
        "test_v": rule.test_volts,
        "temperature_c": circuit.temperature_c,
        "length_m": max((p.length_m or 0.0 for p in circuit.points), default=0.0) or None,
        "previous_mohm_20c": circuit.previous.get(pair_id(a, b)),
    }
    title = f"{_letter(circuit, a)} to {_letter(circuit, b)}"
    return Line(f"insulation {pair_id(a, b)}", Step.INSULATION, "insulation", title, preset, f"{rule.why}.")
