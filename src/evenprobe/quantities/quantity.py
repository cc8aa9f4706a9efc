"""What a quantity must say of itself. A quantity is what is measured: a voltage, a resistance, a lamp pattern.

All that is particular to one is in its own module of this package, as a subclass of `Quantity`; nothing outside it
branches on which quantity it is.
"""

from abc import ABC, abstractmethod
from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.installation.installation import BesideBranches, Solved
from evenprobe.installation.modes import OFF, Mode
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.sweep import Sweep
from evenprobe.quantities.weighed import Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.registry import Listed, Registry
from evenprobe.rounding import rounded
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal

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

    def mode(self, measurement: Measurement) -> Mode:
        """The state of the installation that it is measured in."""
        return Mode(
            device_open=measurement.device == "open",
            taps=measurement.load_elsewhere_a is not None,
            others=OFF if measurement.nothing_else_on else "",
        )

    @abstractmethod
    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        """What is shown, (B,) in the quantity's unit, of an installation solved in its mode."""

    def phasor(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        """What is shown, (B,), with its angle where it is the magnitude of something that turns."""
        return self.shown(measurement, solved, point)

    @abstractmethod
    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        """What `shown` changes by with each branch's admittance, (K, B) per siemens, and each EMF of its own.

        Complex: a change of admittances changes what is shown by the real part of the sum of products.
        """

    def beside_branches(self, measurement: Measurement) -> Iterable[BesideBranches]:
        """Unknowns that act at the known load and at the probes, where they matter."""
        if measurement.under_load:
            yield "known_load_error"
        if self.dead:
            yield "contact_ohm"
        if Terminal.REF in measurement.ends:
            yield "reference_ohm"

    def wander(self, measurement: Measurement, solved: Solved) -> Array:
        """By what share it wanders from one moment to the next by itself, (B,)."""
        return np.zeros(solved.contact_ohm.shape)

    def weigh(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        """What a reading of it counts for: any tester may raise an alarm, only a fit and proved one clears."""
        if reading.unfit:
            return (self.of_one_unfit(reading, reading.unfit),)
        if self.flows and reading.measurement.device == "open":
            return (set_aside(reading, "nothing-flows"),)
        return self.counts_for(reading, point)

    @abstractmethod
    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        """The same of a tester that is fit."""

    def of_one_unfit(self, reading: Reading, why: str) -> Weighed:
        """What is left of a reading whose tester may not clear anything."""
        return set_aside(reading, "unfit", why=why)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        """All that can be measured of it at a point with a tester."""
        return ()

    def seconds(self, measurement: Measurement) -> float:
        """What taking it costs, a second at a live board being dearer."""
        return CONTACT_S * LIVE_EXPOSURE

    def apart(self, measurement: Measurement, point: PointFacts) -> tuple[float, float]:
        """(constant, share) of what two readings of it must differ by to be told apart."""
        at_zero = self.weigh(Reading("", measurement, value=0.0), point)[0]
        return getattr(at_zero, "tolerance", 0.5), getattr(at_zero, "gain_share", 0.01) + 0.002

    def warning(self, measurement: Measurement, point: PointFacts) -> str:
        """What to know before it is taken, empty where there is nothing."""
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
    def read(self, name: str, measurement: Measurement, hidden: "Hidden", errors: "Errors") -> Reading:
        """What a person would write down of a point whose truth is known, with the tester's full error."""


QUANTITIES: Registry[Quantity] = Registry(Quantity.listed_as, lambda quantity: quantity.rank)
"""Adding one is adding a module to this package."""
