"""A condition: one small change of the healthy installation that can be true, as data; the network does the rest."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from enum import IntEnum
from functools import lru_cache

from evenprobe.conditions.variants import HEALTHY, Change, Variant, Variants, each_line
from evenprobe.practices import Practice
from evenprobe.registry import Listed, Registry
from evenprobe.supplies import Earthing
from evenprobe.wiring.points import METALWORK, Layout, PointFacts, Terminal
from evenprobe.wiring.unknowns import Range, loses_little


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


@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class Condition(Listed):
    """What can be true at a point.

    Parameters
    ----------
    id, severity
        As files write it, and how bad it is.
    prior
        How usual it is; it orders what stands and never rules anything out.
    title, symptom, cause, remedy
        What people call it, what is noticed of it, where to look, what to do; in the practice's words, as `{line}`,
        `{neutral}`, `{earth}`.
    contacts
        The wire behind the L, N and PE contact. Where several lines come to a point, `line` is any one of them.
    joints
        Wires with a poor or open joint along the run, or `service`, the neutral from the source.
    source_share
        Range of the source voltage as shares of the band's own edges: (of the low edge, of the high edge).
    leak_ohm
        Resistance from the line to metalwork.
    bonded
        Whether neutral and earth are joined at the origin.
    overloaded
        Whether the run loses more than it should at what its device lets through.
    open_at_device
        Whether the line is open at its device.
    device_blind
        Whether its residual-current device sees nothing; it can only be where there is one.
    borrows_neutral
        Whether the neutral behind the N contact is another circuit's.
    taps_too
        Whether other points of the circuit have their contacts so too.
    harmless_unpolarised
        Whether it is worth no more than a note where a plug goes in both ways round.
    variants
        The variants of the change at a layout.
    lines, systems
        How many lines may come to the point, and the supplies it is of, any where empty.
    priors
        Of supplies, by id, where it is more or less usual than elsewhere.
    disturbs
        Wires without which it means nothing, beside those of its contacts and joints.

    Examples
    --------
    >>> from evenprobe.conditions import CONDITIONS
    >>> from evenprobe.practices import NORTH_AMERICA
    >>> CONDITIONS["open-earth"].title_in(NORTH_AMERICA)
    'Ground open'
    """

    listed_as = "condition"

    id: str
    severity: Severity
    prior: float
    title: str
    symptom: str
    cause: str
    remedy: str
    contacts: tuple[str, str, str] = HEALTHY
    joints: Mapping[str, Range] = field(default_factory=dict)
    source_share: tuple[float, float] | None = None
    leak_ohm: Range | None = None
    bonded: bool = True
    overloaded: bool = False
    open_at_device: bool = False
    device_blind: bool = False
    borrows_neutral: bool = False
    taps_too: bool = False
    harmless_unpolarised: bool = False
    variants: Variants = each_line
    lines: tuple[int, ...] = (1, 2, 3)
    systems: tuple[str, ...] = ()
    priors: Mapping[str, float] = field(default_factory=dict)
    disturbs: tuple[str, ...] = ()

    def variants_at(self, layout: Layout) -> tuple[Variant, ...]:
        """Its variants at a layout of lines; none where it cannot be true there."""
        return _variants_at(self, layout)

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
            and (not self.overloaded or not loses_little(point))
        )

    @property
    def _disturbed(self) -> set[str]:
        moved = {w for pair in zip(self.contacts, HEALTHY, strict=True) if pair[0] != pair[1] for w in pair}
        return moved | set(self.joints) | set(self.disturbs) | (set() if self.bonded else {"earth"})

    @property
    def leaves_wiring_sound(self) -> bool:
        """Whether the wiring here is sound under it: a device that sees nothing, a neutral that fails at the source."""
        return self.device_blind or (set(self.joints) == {"service"} and not self.severity.can_hurt)

    def severity_at(self, point: PointFacts) -> Severity:
        """The severity here: which way round an unpolarised plug goes is never a fault.

        With several lines a line where the neutral belongs puts line to line on what is made for line to neutral.
        """
        if self.harmless_unpolarised and not point.polarised:
            return Severity.NOTE
        if len(point.lines) > 1 and self.contacts[1] == "line" and point.layout.neutral:
            return Severity.DANGER
        return self.severity

    def prior_at(self, point: PointFacts) -> float:
        """How usual it is on the point's supply."""
        return self.priors.get(point.system.id, self.prior)

    def name_in(self, practice: Practice) -> str:
        """What it is called in a sentence, in the practice's words."""
        return practice.in_words(self.title)

    def title_in(self, practice: Practice) -> str:
        """What it is called where it stands alone."""
        name = self.name_in(practice)
        return name[0].upper() + name[1:]


CONDITIONS: Registry[Condition] = Registry(Condition.listed_as)


@lru_cache(maxsize=1024)
def _variants_at(condition: Condition, layout: Layout) -> tuple[Variant, ...]:
    """Its variants; what is wrong can be so on other legs that are as good too."""
    change = Change(condition.contacts, condition.joints, condition.leak_ohm is not None)
    found = list(condition.variants(change, layout))
    if not condition.severity.is_fine:
        for phasors in layout.alternatives:
            found += condition.variants(change, replace(layout, phasors=phasors, alternatives=()))
    return tuple(found)
