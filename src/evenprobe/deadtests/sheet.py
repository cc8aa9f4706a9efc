"""The sheet of a circuit: what is tested, in the order of the work, and what each line starts out with.

Look, loads out, leads nulled, what must be joined, what must not, the device, insulation, discharge, all clear
(IEC 60364-6 clause 6.4.3 has the same order).
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from evenprobe.deadtests.sentences import BEFORE_HARM
from evenprobe.limits.dead_tests import InsulationRule, insulation_rule
from evenprobe.practices import Practice
from evenprobe.supplies import SupplySystem
from evenprobe.wiring import Terminal
from evenprobe.wiring.points import LINES


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
    Step.CONTINUITY: StepWords("Continuity", "Each conductor end to end: what must be joined is, and how well."),
    Step.SEPARATION: StepWords("Separation", "Highest ohm range, neutral disconnected: over-range is wanted."),
    Step.DEVICE: StepWords("Protective device", "Open: over-range. Closed: next to nothing. It latches."),
    Step.INSULATION: StepWords(
        "Insulation", "Wait until it is steady. Keep off: the conductors carry the test voltage."
    ),
    Step.DISCHARGE: StepWords("Discharge", "Through the tester, until it shows under 25 V. A long cable holds charge."),
    Step.CLEAR: StepWords(
        "Clear to energise", "Boxes closed, others warned, locks off by whoever put them. One attempt."
    ),
}


@dataclass(frozen=True)
class LookItem:
    id: str
    title: str


LOOK_FOR: tuple[LookItem, ...] = (
    LookItem("bare-ends", "No bare copper outside a terminal"),
    LookItem("clamp", "No terminal clamped on insulation"),
    LookItem("screws", "No loose screws"),
    LookItem("sleeves", "No sleeving missing"),
    LookItem("burnt", "Nothing burnt"),
    LookItem("brittle", "No brittle insulation"),
    LookItem("colours", "No wrong colours"),
    LookItem("extra", "No extra wires"),
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

    def letter(self, terminal: Terminal) -> str:
        """What is written on a contact there."""
        return self.practice.letters[terminal]

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


def before_harm(step: Step, *, dead: bool, loads_out: bool | None, rule: InsulationRule) -> tuple[str, ...]:
    """What to say before a test of that step is made, worst first. `loads_out` None: nobody said."""
    found = []
    meters = step in (Step.LEADS, Step.CONTINUITY, Step.SEPARATION, Step.DEVICE, Step.INSULATION)
    if meters and not dead and step is not Step.LEADS:
        found.append(str(BEFORE_HARM.say("not-proved-dead")))
    if step is Step.INSULATION and loads_out is not True:
        known = "loads-in" if loads_out is False else "loads-not-said"
        found.append(str(BEFORE_HARM.say(known, volts=rule.test_volts)))
    return tuple(found)


def pair_id(a: Terminal, b: Terminal) -> str:
    return f"{a}-{b}"
