"""The catalogue of what can be true at a single-phase point.

A condition is a small change of the healthy installation, as data; the network does the rest. Adding one is
a row here and a test. Titles use the practice's words: `{line}`, `{neutral}`, `{earth}`, `{source}`.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import IntEnum
from typing import Literal

from evenprobe.supplies import PRACTICES, Earthing, PracticeId
from evenprobe.wiring.points import METALWORK, PointFacts, Terminal
from evenprobe.wiring.unknowns import Range

Wire = Literal["line", "neutral", "earth"]


class Severity(IntEnum):
    """How bad it is that a condition is true, in rising order."""

    OK = 0
    NOTE = 1
    DEFECT = 2
    HAZARD = 3
    DANGER = 4

    @property
    def label(self) -> str:
        return self.name.lower()

    @property
    def is_fine(self) -> bool:
        return self <= Severity.NOTE

    @property
    def can_hurt(self) -> bool:
        return self >= Severity.HAZARD


HEALTHY: tuple[Wire, Wire, Wire] = ("line", "neutral", "earth")
"""The wires behind the L, N and PE contact as they should be."""

OPEN = Range(0.0, 0.0)
"""A joint that does not conduct: 1 GΩ beside a few picofarads."""


@dataclass(frozen=True)
class Condition:
    """`contacts`: the wire behind the L, N and PE contact. `joints`: wires with a poor or open joint along the run.

    `prior` orders what stands; it never rules anything out.
    """

    id: str
    severity: Severity
    prior: float
    title: str
    notice: str
    look_for: str
    mend: str
    contacts: tuple[Wire, Wire, Wire] = HEALTHY
    joints: Mapping[Wire, Range] = field(default_factory=dict)
    source_share: tuple[float, float] | None = None
    """Range of the source voltage as shares of the band's own edges: (of the low edge, of the high edge)."""
    leak_ohm: Range | None = None
    bonded: bool = True
    open_at_device: bool = False
    second_line: bool = False

    def severity_at(self, point: PointFacts) -> Severity:
        """The severity here: which way round an unpolarised plug goes is never a fault."""
        if self.id == "line-neutral-swapped" and not point.polarised:
            return Severity.NOTE
        return self.severity

    def prior_at(self, point: PointFacts) -> float:
        """A missing bond is the usual suspect on a standalone source and rare elsewhere."""
        if self.id == "source-not-bonded" and point.system.standalone:
            return 0.2
        return self.prior

    def in_words(self, text: str, practice: PracticeId) -> str:
        words = PRACTICES[practice].words
        filled = text.format(line=words["line"], neutral=words["N"], earth=words["earth"])
        return filled[0].upper() + filled[1:]


POOR_JOINT = Range(0.3, 6.0, "log")
POOR_EARTH_JOINT = Range(2.0, 500.0, "log")

CATALOGUE: dict[str, Condition] = {
    condition.id: condition
    for condition in (
        Condition(
            "correct",
            Severity.OK,
            1.0,
            "correct",
            "nothing",
            "nothing more",
            "nothing to mend",
        ),
        Condition(
            "no-supply",
            Severity.DEFECT,
            0.05,
            "no supply: {line} open at the device",
            "nothing works on this circuit",
            "a device switched off or tripped; measure before resetting it",
            "find why it is off before it goes on again",
            open_at_device=True,
        ),
        Condition(
            "supply-low",
            Severity.DEFECT,
            0.02,
            "supply too low",
            "lamps dim, motors labour and run hot",
            "the same voltage at the board; a heavily loaded or long feeder",
            "report it to whoever supplies it; do not load it further",
            source_share=(0.5, 1.0),
        ),
        Condition(
            "supply-high",
            Severity.DEFECT,
            0.02,
            "supply too high",
            "lamps fail early, electronics overheat",
            "the same voltage at the board; a neutral lost upstream on a multi-line supply",
            "disconnect electronics and report it",
            source_share=(1.0, 1.4),
        ),
        Condition(
            "open-line",
            Severity.DEFECT,
            0.03,
            "{line} open along the run",
            "dead outlet, others before it still work",
            "a joint in the last working point or this one",
            "isolate, prove dead, remake the joint",
            joints={"line": OPEN},
        ),
        Condition(
            "open-neutral",
            Severity.HAZARD,
            0.03,
            "{neutral} open along the run",
            "dead, yet everything plugged in sits at line voltage",
            "a loose neutral at the last working point",
            "isolate, prove dead, remake the joint",
            joints={"neutral": OPEN},
        ),
        Condition(
            "open-earth",
            Severity.HAZARD,
            0.05,
            "{earth} open",
            "a tingle from metalwork, or nothing at all until a fault",
            "a protective conductor left off or broken along the run",
            "isolate, prove dead, restore the protective conductor",
            joints={"earth": OPEN},
        ),
        Condition(
            "open-neutral-and-earth",
            Severity.HAZARD,
            0.005,
            "{neutral} and {earth} open",
            "dead, with metalwork floating",
            "a cable end pulled out of a box",
            "isolate, prove dead, remake both joints",
            joints={"neutral": OPEN, "earth": OPEN},
        ),
        Condition(
            "line-neutral-swapped",
            Severity.HAZARD,
            0.04,
            "{line} and {neutral} swapped",
            "works, but switches and fuses break the wrong pole",
            "conductors on the wrong screws at this point",
            "isolate, prove dead, put them right",
            contacts=("neutral", "line", "earth"),
        ),
        Condition(
            "line-earth-swapped",
            Severity.DANGER,
            0.004,
            "{line} and {earth} swapped",
            "every metal part is at line voltage",
            "conductors on the wrong screws at this point",
            "switch off now, lock, and put them right",
            contacts=("earth", "neutral", "line"),
        ),
        Condition(
            "neutral-earth-swapped",
            Severity.HAZARD,
            0.01,
            "{neutral} and {earth} swapped",
            "works; load current returns through metalwork, residual-current devices trip",
            "conductors on the wrong screws at this point",
            "isolate, prove dead, put them right",
            contacts=("line", "earth", "neutral"),
        ),
        Condition(
            "line-neutral-swapped-open-earth",
            Severity.HAZARD,
            0.003,
            "{line} and {neutral} swapped, {earth} open",
            "works, with no protection at all",
            "an old two-wire run with a three-contact outlet",
            "isolate, prove dead, put them right and restore the protective conductor",
            contacts=("neutral", "line", "earth"),
            joints={"earth": OPEN},
        ),
        Condition(
            "earth-from-neutral",
            Severity.HAZARD,
            0.02,
            "{earth} made from {neutral} here",
            "live metal as soon as the neutral opens",
            "a short wire between two screws at the back of this point",
            "isolate, prove dead, take the link out, run a protective conductor",
            contacts=("line", "neutral", "neutral"),
        ),
        Condition(
            "earth-from-neutral-swapped",
            Severity.DANGER,
            0.004,
            "{earth} made from {neutral}, reversed",
            "every metal part sits at line voltage",
            "a short wire between two screws, with the conductors the wrong way round",
            "switch off now, lock, take the link out, put the conductors right",
            contacts=("neutral", "line", "line"),
        ),
        Condition(
            "live-casing",
            Severity.DANGER,
            0.005,
            "live casing: {earth} open and something leaks",
            "a tingle or a shock from metalwork",
            "wet or failing equipment, and a protective conductor broken upstream",
            "switch off, unplug everything, restore the protective conductor",
            joints={"earth": OPEN},
            leak_ohm=Range(2e3, 200e3, "log"),
        ),
        Condition(
            "source-not-bonded",
            Severity.HAZARD,
            0.001,
            "source not bonded to {earth}",
            "works; residual-current devices cannot trip",
            "a generator or inverter without its neutral–earth link, or a link left out at the origin",
            "make the bond the maker of the source asks for",
            bonded=False,
        ),
        Condition(
            "high-resistance-line",
            Severity.DEFECT,
            0.03,
            "poor {line} joint",
            "voltage sags under load, a joint runs hot",
            "a loose screw, burnt or brittle insulation along the run",
            "isolate, prove dead, remake the joint",
            joints={"line": POOR_JOINT},
        ),
        Condition(
            "high-resistance-neutral",
            Severity.DEFECT,
            0.03,
            "poor {neutral} joint",
            "voltage sags under load, neutral rises above earth",
            "a loose screw, burnt or brittle insulation along the run",
            "isolate, prove dead, remake the joint",
            joints={"neutral": POOR_JOINT},
        ),
        Condition(
            "high-resistance-earth",
            Severity.HAZARD,
            0.03,
            "poor {earth} joint",
            "reads right and fails when a fault needs it",
            "a loose screw, paint or corrosion under a protective connection",
            "isolate, prove dead, remake the joint",
            joints={"earth": POOR_EARTH_JOINT},
        ),
        Condition(
            "wrong-system",
            Severity.DANGER,
            0.002,
            "two lines where {line} and {neutral} belong",
            "equipment burns out at once",
            "a second line on the neutral screw at the board or in a box",
            "switch off now; nothing may be plugged in",
            second_line=True,
        ),
    )
}


def _disturbed(condition: Condition) -> set[Wire]:
    """The wires without which a condition means nothing."""
    moved = {w for pair in zip(condition.contacts, HEALTHY, strict=True) if pair[0] != pair[1] for w in pair}
    disturbed: set[Wire] = moved | set(condition.joints)
    if not condition.bonded:
        disturbed.add("earth")
    if condition.second_line:
        disturbed.add("neutral")
    return disturbed


def conditions_for(point: PointFacts) -> tuple[Condition, ...]:
    """Those that can be true at this point: nothing about a wire that has no terminal here.

    Where nothing is meant to be bonded, a missing bond is no fault.
    """
    here: set[Wire] = {"line"}
    if Terminal.N in point.terminals:
        here.add("neutral")
    if set(METALWORK) & set(point.terminals):
        here.add("earth")
    by_design = {"source-not-bonded"} if point.earthing is Earthing.IT else set()
    return tuple(c for c in CATALOGUE.values() if c.id not in by_design and _disturbed(c) <= here)
