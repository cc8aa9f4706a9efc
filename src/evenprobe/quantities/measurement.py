"""What a measurement is, what a reading is, what a reading may count for, and what a quantity must say of itself.

A quantity is what is measured: a voltage, a resistance, a lamp pattern. All that is particular to one is in its own
module of this package, as a subclass of `Quantity`; nothing outside it branches on which quantity it is.
"""

from abc import ABC, abstractmethod
from collections.abc import Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, fields
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.installation.installation import BesideBranches, Solved
from evenprobe.installation.modes import OFF, Mode
from evenprobe.quantities.sentences import DIRECT, KEPT
from evenprobe.quantities.sweep import Sweep
from evenprobe.quantities.written import Function, Written
from evenprobe.registry import Listed, Registry
from evenprobe.rounding import rounded
from evenprobe.testers.instrument import TYPED, Instrument
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.circumstances import Device, FarEnds, Input, Loads, Neutral
from evenprobe.wiring.points import METALWORK

if TYPE_CHECKING:
    from evenprobe.quantities.simulated import Errors, Hidden

Array = NDArray[Any]

CONTACT_S = 15.0
"""Seconds that a reading at contacts takes."""
LIVE_EXPOSURE = 1.3
"""By how much a second at a live board costs more than one at a dead circuit."""


class Quantity(Listed, ABC):
    """A quantity: how it is taken, what it would show and how that moves, what it counts for, how it is written down.

    Attributes
    ----------
    id, rank, title
        As files write it, where it stands among the others in lists, and what people call it.
    unit
        What it shows is in: V, ohm, A, Hz, or nothing.
    purpose
        What a tester is wanted for that shows it.
    written
        How a reading of it is written down.
    functions
        What a person chooses to take it, in the order of use.
    dead
        Whether it is made on a dead circuit, by a source of the tester's own.
    with_source
        Whether what it shows rises with the voltage of the source.
    flows
        Whether it is of what flows while the circuit's device is closed, so that with it open it says nothing.
    """

    listed_as = "quantity"

    rank: int
    title: str
    unit: str
    purpose: Purpose
    written: Written
    functions: tuple[Function, ...]
    dead: bool = False
    with_source: bool = False
    flows: bool = False

    def mode(self, measurement: "Measurement") -> Mode:
        """The state of the installation that it is measured in."""
        return Mode(
            device_open=measurement.device == "open",
            taps=measurement.load_elsewhere_a is not None,
            others=OFF if measurement.nothing_else_on else "",
        )

    @abstractmethod
    def shown(self, measurement: "Measurement", solved: Solved, point: PointFacts) -> Array:
        """What is shown, (B,) in the quantity's unit, of an installation solved in its mode."""

    @abstractmethod
    def slopes(self, measurement: "Measurement", solved: Solved, point: PointFacts) -> Array:
        """What `shown` changes by with each branch's admittance, (K, B) per siemens, and each EMF of its own.

        Complex: a change of admittances changes what is shown by the real part of the sum of products.
        """

    def beside_branches(self, measurement: "Measurement") -> Iterable[BesideBranches]:
        """Unknowns that act at the known load and at the probes, where they matter."""
        if measurement.under_load:
            yield "known_load_error"
        if self.dead:
            yield "contact_ohm"
        if Terminal.REF in measurement.ends:
            yield "reference_ohm"

    def wander(self, measurement: "Measurement", solved: Solved) -> Array:
        """By what share it wanders from one moment to the next by itself, (B,)."""
        return np.zeros(solved.contact_ohm.shape)

    def weigh(self, reading: "Reading", point: PointFacts) -> Sequence["Weighed"]:
        """What a reading of it counts for: any tester may raise an alarm, only a fit and proved one clears."""
        if reading.unfit:
            return (self.of_one_unfit(reading, reading.unfit),)
        if self.flows and reading.measurement.device == "open":
            return (set_aside(reading, "nothing-flows"),)
        return self.counts_for(reading, point)

    @abstractmethod
    def counts_for(self, reading: "Reading", point: PointFacts) -> Sequence["Weighed"]:
        """The same of a tester that is fit."""

    def of_one_unfit(self, reading: "Reading", why: str) -> "Weighed":
        """What is left of a reading whose tester may not clear anything."""
        return set_aside(reading, "unfit", why=why)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable["Measurement"]:
        """All that can be measured of it at a point with a tester."""
        return ()

    def seconds(self, measurement: "Measurement") -> float:
        """What taking it costs, a second at a live board being dearer."""
        return CONTACT_S * LIVE_EXPOSURE

    def apart(self, measurement: "Measurement", point: PointFacts) -> tuple[float, float]:
        """(constant, share) of what two readings of it must differ by to be told apart."""
        at_zero = self.weigh(Reading("", measurement, value=0.0), point)[0]
        return getattr(at_zero, "tolerance", 0.5), getattr(at_zero, "gain_share", 0.01) + 0.002

    def warning(self, measurement: "Measurement") -> str:
        """What to warn of before it is taken, empty where there is nothing."""
        return ""

    def as_seen(self, value: Any, sweep: Sweep | None, at: Terminal | None) -> dict[str, Any]:
        """What a reading holds of a value as it is written down: a number in SI units, yes or no, or lamps by name."""
        return {"value": value}

    def beyond(self, tester: Instrument, value: float) -> str:
        """Why a tester never shows so much, empty where it may."""
        return ""

    def said(self, value: float) -> str:
        """A value in words."""
        return f"{rounded(value, self.unit):g} {self.unit}".rstrip()

    @abstractmethod
    def read(self, name: str, measurement: "Measurement", hidden: "Hidden", errors: "Errors") -> "Reading":
        """What a person would write down of a point whose truth is known, with the tester's full error."""


QUANTITIES: Registry[Quantity] = Registry(Quantity.listed_as, lambda quantity: quantity.rank)
"""Adding one is adding a module to this package."""


@dataclass(frozen=True)
class Measurement:
    """`from_`: measuring point; `to`: reference point, None for what needs one point or all.

    Loads are known loads in amperes at nominal voltage; None means none known. `load_between`: which contacts they
    are between, None for the pair that `probes.load_between` takes. `nothing_else_on`: whatever else there is on the
    circuit was seen to be switched off or unplugged. `device`: the circuit's own.
    `test_ma`: what a trip test drives from the line to earth, at nominal voltage.
    `neutral`: lifted off its bar at the board, or opened by the device. `far_ends`: joined, where the conductors of the
    two contacts are joined at the board, so that it is both of them. `dc`: on a DC range.
    """

    quantity: Quantity
    from_: Terminal | None
    to: Terminal | None
    instrument: Instrument = TYPED
    input: Input = "high-z"
    load_here_a: float | None = None
    load_elsewhere_a: float | None = None
    load_between: tuple[Terminal, Terminal] | None = None
    nothing_else_on: bool = False
    device: Device = "closed"
    neutral: Neutral = "connected"
    far_ends: FarEnds = "apart"
    test_ma: float | None = None
    dc: bool = False

    @property
    def ends(self) -> frozenset[Terminal]:
        """The points the probes are on."""
        return frozenset(end for end in (self.from_, self.to) if end is not None)

    @property
    def as_is(self) -> bool:
        """No known load and the device closed."""
        return not self.under_load and self.device == "closed"

    @property
    def under_load(self) -> bool:
        """Whether a load that is known is on, here or elsewhere on the circuit."""
        return self.load_here_a is not None or self.load_elsewhere_a is not None

    @property
    def of_metal_to_reference(self) -> bool:
        """Whether it is of metalwork against an independent earth."""
        return Terminal.REF in self.ends and bool(self.ends & set(METALWORK))

    @property
    def at_low_impedance(self) -> bool:
        """Whether a ghost would collapse: at the low impedance of a tester that has one."""
        ability = self.instrument.volts()
        return self.input == "low-z" and ability is not None and ability.low_input_ohm is not None

    def setup(self, *ignoring: str) -> Hashable:
        """What two measurements of one thing have in common: every field but who measured and which probe was where.

        A field added to the class counts of itself; whoever compares less names what does not matter to them.
        Between which contacts a load is matters where there is one.

        >>> from evenprobe.quantities import VOLTAGE
        >>> one = Measurement(VOLTAGE, Terminal.L, Terminal.N, load_here_a=9)
        >>> one.setup() == Measurement(VOLTAGE, Terminal.N, Terminal.L, load_here_a=9).setup()
        True
        >>> one.setup() == Measurement(VOLTAGE, Terminal.L, Terminal.N, load_here_a=9, dc=True).setup()
        False
        """
        found: dict[str, Hashable] = {f.name: getattr(self, f.name) for f in fields(self)}
        found["ends"] = frozenset((found.pop("from_"), found.pop("to")))
        found["load_between"] = frozenset(self.load_between or ()) if self.under_load else None
        return frozenset((name, value) for name, value in found.items() if name not in ("instrument", *ignoring))


@dataclass(frozen=True)
class Reading:
    """A measurement and what was seen, in SI units.

    `value` for a number, and for the sequence 1 forwards, 0 reversed; `at_least` and `below` for steps;
    `over_range` for a display that shows only more than its range; `alarm` for a detector, with `sweep` where it was
    walked along; `tripped` for a trip test; `lit` by lamp, named as `L-N`. `test_volts` and `loads` are of an
    insulation test. `least` and `most` are what a current fell and rose to, and `continuous` one that flows for three
    hours and more. `unfit`: why what was held then cannot confirm safe here, empty where it was fit. `at`: when it was
    taken, in seconds of any clock common to a point's readings, None where nobody wrote it down.
    """

    id: str
    measurement: Measurement
    value: float | None = None
    at_least: float | None = None
    below: float | None = None
    over_range: bool = False
    alarm: bool | None = None
    sweep: Sweep | None = None
    tripped: bool | None = None
    lit: Mapping[str, bool] = field(default_factory=dict)
    test_volts: float | None = None
    loads: Loads | None = None
    least: float | None = None
    most: float | None = None
    continuous: bool = False
    unfit: str = ""
    at: float | None = None


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
    def quantity(self) -> Quantity:
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
