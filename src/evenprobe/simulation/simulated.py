"""A point with a hidden condition, read by testers with their full error.

Noise is uniform over everything the error model allows, corners included: a gain common to a tester's
readings of one quantity, counts of the display, drift between readings, and rounding to the display.
"""

import numpy as np

from evenprobe.conditions import Condition
from evenprobe.installation import Installation
from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import Mode
from evenprobe.interpretation.samples import Samples
from evenprobe.quantities import Measurement, Quantity, Reading
from evenprobe.testers import Instrument
from evenprobe.wiring import PointFacts, Terminal


class TesterErrors:
    """How far off each tester is: a gain of its own for every quantity, drawn once, in shares of its percent."""

    def __init__(self, rng: np.random.Generator) -> None:
        self.rng = rng
        self._gains: dict[tuple[str, Quantity], float] = {}

    def gain(self, tester: Instrument, quantity: Quantity) -> float:
        key = tester.id, quantity
        if key not in self._gains:
            self._gains[key] = float(self.rng.uniform(-1, 1))
        return self._gains[key]


class HiddenPoint:
    """One random sample of a condition at a point.

    `direct_volts`: of contacts against the mass of earth, from a source that is none of the supply's.
    """

    def __init__(self, point: PointFacts, condition: Condition, rng: np.random.Generator) -> None:
        installation = Installation(point)
        cube = rng.random((1, installation.unknowns.count))
        self.condition = condition
        self.samples = Samples(installation, cube, [(condition, slice(0, 1))])
        self.direct_volts: dict[Terminal, float] = {}

    @property
    def point(self) -> PointFacts:
        return self.samples.installation.point

    def solved(self, mode: Mode) -> Solved:
        return self.samples.solved(mode)

    def read(self, name: str, measurement: Measurement, errors: TesterErrors) -> Reading:
        """What a person would write down. Raises ValueError for what is no part of a hidden point."""
        return measurement.quantity.read(name, measurement, self, errors)
