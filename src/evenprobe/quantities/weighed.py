"""What a reading may count for: evidence that confines, an alarm, a direct voltage, or kept and not counted."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.sentences import DIRECT, KEPT
from evenprobe.wiring import Terminal

if TYPE_CHECKING:
    from evenprobe.quantities.quantity import Quantity


@dataclass(frozen=True)
class Evidence:
    """A sample fits when gain · prediction lies in [low − tolerance, high + tolerance].

    `gain_share`: the percent part of the tester's error, common to all its readings of one quantity, which
    `tester` names. `of`: what is predicted where it is not the reading's own measurement, as of one lamp of three.
    """

    reading: Reading
    low: float
    high: float
    tolerance: float
    gain_share: float
    tester: str
    of: Measurement | None = None

    @property
    def measurement(self) -> Measurement:
        return self.of or self.reading.measurement

    @property
    def quantity(self) -> "Quantity":
        return self.measurement.quantity

    @property
    def with_source(self) -> bool:
        """Whether the prediction scales with the source's voltage; a trip tester holds its current."""
        return self.quantity.with_source

    @property
    def key(self) -> tuple[object, ...]:
        """What the evidence says, whoever recorded it and under whatever id."""
        return self.measurement, self.low, self.high, self.tolerance, self.gain_share, self.tester, self.reading.at

    @property
    def interval(self) -> tuple[float, float]:
        """Every true value the reading allows, in the quantity's unit."""
        low, high = self.low - self.tolerance, self.high + self.tolerance
        return max(0.0, low / (1 + self.gain_share)), high / (1 - self.gain_share)


@dataclass(frozen=True)
class Alarm:
    """Something says voltage at a terminal: at least `volts` against earth."""

    reading: Reading
    terminal: Terminal
    volts: float


FEEDS_DIRECT = str(DIRECT.say("feeds"))


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
        return str(DIRECT.say("treat-as-live", shows=self.shows, feeds=FEEDS_DIRECT))

    @property
    def metal(self) -> bool:
        """Whether it is metalwork against an independent earth."""
        return self.reading.measurement.of_metal_to_reference


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


def set_aside(reading: Reading, key: str, **about: object) -> Kept:
    """A reading that is kept and does not count, by the key of the sentence that says why."""
    return Kept(reading, str(KEPT.say(key, **about)))
