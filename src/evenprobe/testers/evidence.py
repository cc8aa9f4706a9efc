"""What a reading can count for: evidence, an alarm, or nothing yet, and which of several alike confine most.

`Evidence` is an interval a sample must reproduce; `Alarm` and `Direct` can only make things worse; `Kept` is recorded
and not counted, with why. Nothing is thrown away. `weighing` says which of them a reading is.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from evenprobe.testers.measurement import Measurement, Quantity, Reading
from evenprobe.testers.showing import WITH_THE_SOURCE
from evenprobe.wiring import Terminal
from evenprobe.wiring.points import METALWORK


@dataclass(frozen=True)
class Evidence:
    """A sample fits when gain · prediction lies in [low − tolerance, high + tolerance].

    `gain_share`: the percent part of the tester's error, common to all its readings of one quantity, which
    `tester` names. `lamp`: which lamp, for a lit one.
    """

    reading: Reading
    low: float
    high: float
    tolerance: float
    gain_share: float
    tester: str
    lamp: str | None = None

    @property
    def measurement(self) -> Measurement:
        return self.reading.measurement

    @property
    def with_source(self) -> bool:
        """Whether the prediction scales with the source's voltage; a trip tester holds its current."""
        return self.measurement.quantity in WITH_THE_SOURCE

    @property
    def unit(self) -> str:
        if self.measurement.dead:
            return "ohm"
        return {Quantity.TRIP: "A", Quantity.CURRENT: "A", Quantity.SEQUENCE: ""}.get(self.measurement.quantity, "V")

    @property
    def key(self) -> tuple[object, ...]:
        """What the evidence says, whoever recorded it and under whatever id."""
        return self.measurement, self.lamp, self.low, self.high, self.tolerance, self.gain_share, self.tester

    @property
    def interval(self) -> tuple[float, float]:
        """Every true value the reading allows, in volts or ohms."""
        low, high = self.low - self.tolerance, self.high + self.tolerance
        return max(0.0, low / (1 + self.gain_share)), high / (1 - self.gain_share)


def in_order(evidence: Sequence[Evidence]) -> list[Evidence]:
    """By what it says, so that nothing depends on the order in which readings were taken down."""
    return sorted(evidence, key=lambda e: (repr(e.key), e.reading.id))


Extremes = tuple[Evidence, Evidence]


def confining(evidence: Sequence[Evidence]) -> tuple[Evidence, ...]:
    """Of readings repeated with one tester the one that confines most from below and the one from above.

    They confine a prediction as much as all of them do, so a reading taken ten times costs no more than twice.
    """
    kept = {id(e) for group in _repeated(evidence) for e in _extremes(group)}
    return tuple(e for e in evidence if id(e) in kept)


def at_odds(evidence: Sequence[Evidence]) -> Extremes | None:
    """Two readings of one thing, with one tester or two alike, that no value explains, if there are any."""
    for group in _repeated(evidence):
        below, above = _extremes(group)
        if below.low - below.tolerance > above.high + above.tolerance:
            return below, above
    for group in _repeated(evidence, by_any_like_tester=True):
        below = max(group, key=lambda e: e.interval[0])
        above = min(group, key=lambda e: e.interval[1])
        if below.interval[0] > above.interval[1]:
            return below, above
    return None


def _extremes(group: Sequence[Evidence]) -> Extremes:
    return max(group, key=lambda e: e.low - e.tolerance), min(group, key=lambda e: e.high + e.tolerance)


def _repeated(evidence: Sequence[Evidence], *, by_any_like_tester: bool = False) -> list[list[Evidence]]:
    """The evidence in groups of one prediction each: one setup, whichever probe was where."""
    groups: dict[tuple[object, ...], list[Evidence]] = {}
    for e in evidence:
        m = e.measurement
        ability = m.instrument.volts()
        connected = ability and (ability.input_ohm, ability.input_farad, ability.low_input_ohm)
        who = connected if by_any_like_tester else (e.tester, e.gain_share)
        groups.setdefault((m.setup(), e.lamp, who), []).append(e)
    return list(groups.values())


@dataclass(frozen=True)
class Alarm:
    """Something says voltage at a terminal: at least `volts` against earth."""

    reading: Reading
    terminal: Terminal
    volts: float


FEEDS_DIRECT = "something that is not the supply feeds it, as solar, a battery, a rectifier or a charged capacitor"


@dataclass(frozen=True)
class Direct:
    """Direct voltage that is clearly there: what feeds it is none of the supply's. Any tester may raise it.

    `volts`: the most that the reading may be, without its sign; `shows`: that, as it is said.
    """

    reading: Reading
    volts: float
    shows: str

    @property
    def why(self) -> str:
        return f"{self.shows}: {FEEDS_DIRECT}. Treat as live"

    @property
    def metal(self) -> bool:
        """Whether it is metalwork against an independent earth."""
        ends = {self.reading.measurement.from_, self.reading.measurement.to}
        return Terminal.REF in ends and bool(ends & set(METALWORK))


@dataclass(frozen=True)
class Kept:
    """Recorded and not counted. `quiet_at`: the terminal a proved detector was silent at, which only ranks.

    `no_direct`: a fit and proved tester showed no direct voltage there.
    """

    reading: Reading
    why: str
    quiet_at: Terminal | None = None
    no_direct: bool = False


Weighed = Evidence | Alarm | Direct | Kept
