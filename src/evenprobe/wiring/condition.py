"""A condition: one small change of the healthy installation that can be true, as data; the network does the rest."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import IntEnum
from functools import lru_cache

from evenprobe.practices import Practice
from evenprobe.supplies import Earthing
from evenprobe.wiring.arrangements import HEALTHY, Arrangement, each_line
from evenprobe.wiring.points import METALWORK, Layout, PointFacts, Terminal
from evenprobe.wiring.unknowns import Range


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


@dataclass(frozen=True)
class Condition:
    """`contacts`: the wire behind the L, N and PE contact. `joints`: wires with a poor or open joint along the run,

    or `service`, the neutral from the source. Where several lines come to a point, `line` is any one of them.
    `prior` orders what stands; it never rules anything out. `ways`: the ways it can be at a layout.
    `lines`: how many may come to the point; `systems`: the supplies it is of, any where empty.
    """

    id: str
    severity: Severity
    prior: float
    title: str
    notice: str
    look_for: str
    mend: str
    contacts: tuple[str, str, str] = HEALTHY
    joints: Mapping[str, Range] = field(default_factory=dict)
    source_share: tuple[float, float] | None = None
    """Range of the source voltage as shares of the band's own edges: (of the low edge, of the high edge)."""
    leak_ohm: Range | None = None
    bonded: bool = True
    open_at_device: bool = False
    device_blind: bool = False
    """Whether its residual-current device sees nothing; it can only be where there is one."""
    taps_too: bool = False
    """Whether other points of the circuit have their contacts so too."""
    ways: Callable[["Condition", Layout], Sequence[Arrangement]] = each_line
    lines: tuple[int, ...] = (1, 2, 3)
    systems: tuple[str, ...] = ()
    priors: Mapping[str, float] = field(default_factory=dict)
    """Of supplies, by id, where it is more or less usual than elsewhere."""
    disturbs: tuple[str, ...] = ()
    """Wires without which it means nothing, beside those of its contacts and joints."""

    def __hash__(self) -> int:
        return hash(self.id)

    def arrangements(self, layout: Layout) -> tuple[Arrangement, ...]:
        return _arrangements(self, layout)

    def can_be_at(self, point: PointFacts) -> bool:
        """Nothing about a wire that has no contact here; where nothing is meant to be bonded, no missing bond."""
        here = {"line", "service"}
        if Terminal.N in point.terminals:
            here.add("neutral")
        if set(METALWORK) & set(point.terminals):
            here.add("earth")
        return (
            len(point.lines) in self.lines
            and (not self.systems or point.system.id in self.systems)
            and self._disturbed <= here
            and (not self.device_blind or point.circuit.residual_ma is not None)
            and (self.bonded or point.earthing is not Earthing.IT)
        )

    @property
    def _disturbed(self) -> set[str]:
        moved = {w for pair in zip(self.contacts, HEALTHY, strict=True) if pair[0] != pair[1] for w in pair}
        return moved | set(self.joints) | set(self.disturbs) | (set() if self.bonded else {"earth"})

    def severity_at(self, point: PointFacts) -> Severity:
        """The severity here: which way round an unpolarised plug goes is never a fault.

        With several lines a line where the neutral belongs puts line to line on what is made for line to neutral.
        """
        if self.id == "line-neutral-swapped" and not point.polarised:
            return Severity.NOTE
        if len(point.lines) > 1 and self.contacts[1] == "line" and point.layout.neutral:
            return Severity.DANGER
        return self.severity

    def prior_at(self, point: PointFacts) -> float:
        return self.priors.get(point.system.id, self.prior)

    def in_words(self, text: str, practice: Practice) -> str:
        words = practice.words
        filled = text.format(line=words["line"], neutral=words["N"], earth=words["earth"])
        return filled[0].upper() + filled[1:]


@lru_cache(maxsize=1024)
def _arrangements(condition: Condition, layout: Layout) -> tuple[Arrangement, ...]:
    """Its ways; what is wrong can be so on other legs that are as good too."""
    found = list(condition.ways(condition, layout))
    if not condition.severity.is_fine:
        for phasors in layout.alternatives:
            found += condition.ways(condition, replace(layout, phasors=phasors, alternatives=()))
    return tuple(found)
