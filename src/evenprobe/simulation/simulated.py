"""A point with a hidden condition, read by testers with their full error.

Noise is uniform over everything the error model allows, corners included: a gain common to a tester's
readings of one quantity, counts of the display, drift between readings, and rounding to the display.
"""

from dataclasses import replace

import numpy as np

from evenprobe.conditions import Condition
from evenprobe.installation import Installation
from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import Mode
from evenprobe.interpretation.samples import Samples
from evenprobe.quantities import Measurement, Quantity, Reading
from evenprobe.testers import Instrument
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.references import Reference
from evenprobe.wiring.unknowns import Cube

_MOVES, _MOVES_MUCH, _MUCH_SHARE = 0.005, 0.02, 0.25
"""By how much a supply is off from one reading to the next, as a share: often, and now and then."""
_FLICKERS, _DRIFTS_A_SECOND, _DRIFTS_MOST = 0.003, 0.02 / 120, 0.02
"""The same where times are known: at once, with the time between, and in the end."""
_OTHER_LOAD_SHARE = 0.5
"""Of readings before which something else on the circuit was switched."""


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

    `samples`: it, as it is at the moment. `direct_volts`: of contacts against the mass of earth, from a source that is
    none of the supply's. `references`: what reference earths really are that are not what they are said to be; a
    contact, where one is at its potential. `moves`: whether each reading is of a moment of its own, the supply a little
    off and other loads on along the run.
    """

    def __init__(
        self, point: PointFacts, condition: Condition, rng: np.random.Generator, *, moves: bool = False
    ) -> None:
        self.installation = Installation(point)
        self.condition = condition
        self.moves = moves
        self.direct_volts: dict[Terminal, float] = {}
        self.references: dict[Reference, Reference | Terminal] = {}
        self._cube = rng.random((1, self.installation.unknowns.count))
        self._drifted, self._read_at = 0.0, 0.0
        self.samples = self._with(self._cube)

    @property
    def point(self) -> PointFacts:
        return self.installation.point

    def solved(self, mode: Mode) -> Solved:
        return self.samples.solved(mode)

    def read(self, name: str, measurement: Measurement, errors: TesterErrors, at: float | None = None) -> Reading:
        """What a person would write down, at a time in seconds. Raises ValueError for what is no part of the point."""
        if self.moves:
            self.samples = self._with(self._moved(errors.rng, at))
        if Terminal.REF in measurement.ends and measurement.reference in self.references:
            reading = self._to_what_it_is(name, measurement, errors)
        else:
            reading = measurement.quantity.read(name, measurement, self, errors)
        return replace(reading, at=at)

    def _to_what_it_is(self, name: str, measurement: Measurement, errors: TesterErrors) -> Reading:
        """What is shown against a reference that is not what it is said to be."""
        is_what = self.references[measurement.reference]
        if isinstance(is_what, Reference):
            real = replace(measurement, reference=is_what)
        else:
            one, other = (is_what if end is Terminal.REF else end for end in (measurement.from_, measurement.to))
            real = replace(measurement, from_=one, to=other)
        if real.from_ is real.to:
            return Reading(name, measurement, value=0.0)
        return replace(measurement.quantity.read(name, real, self, errors), measurement=measurement)

    def _with(self, cube: Cube) -> Samples:
        return Samples(self.installation, cube, [(self.condition, slice(0, 1))])

    def _moved(self, rng: np.random.Generator, at: float | None) -> Cube:
        """The sample at another moment."""
        factor = np.array([1 + (self._off(rng) if at is None else self._off_at(at, rng))])
        cube = self.installation.with_source(self._cube, self.condition, factor)
        if rng.random() < _OTHER_LOAD_SHARE:
            axes = [i for i, name in enumerate(self.installation.unknowns.names) if name in self.installation.tap_loads]
            cube[0, axes] = rng.random(len(axes))
        return cube

    @staticmethod
    def _off(rng: np.random.Generator) -> float:
        """The source's share off at a moment of which nobody says when."""
        most = _MOVES_MUCH if rng.random() < _MUCH_SHARE else _MOVES
        return float(rng.uniform(-most, most))

    def _off_at(self, at: float, rng: np.random.Generator) -> float:
        """The same of a moment whose time is known: it drifts slowly, and flickers."""
        most = _DRIFTS_A_SECOND * abs(at - self._read_at)
        self._drifted = float(np.clip(self._drifted + rng.uniform(-most, most), -_DRIFTS_MOST, _DRIFTS_MOST))
        self._read_at = at
        return self._drifted + float(rng.uniform(-_FLICKERS, _FLICKERS))
