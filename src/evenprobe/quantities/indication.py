"""What a display makes of a true value: gain, counts, drift between readings, rounding, steps.

Errors are the makers' ± (percent of reading + counts of the display); an autoranging display has about four digits.
"""

from dataclasses import dataclass
from math import ceil, log10

import numpy as np

from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.simulated import Errors
from evenprobe.testers.kinds import Ability

_FIRST_RANGE_COUNTS = 6000
"""Counts of an autoranging display, as the first range holds them."""
_STEPS_V = (12.0, 50.0, 120.0, 230.0, 400.0, 690.0)
STEP_LIGHTS_FROM = 0.85
"""A step is certainly lit at its voltage and may light from this share of it."""


@dataclass(frozen=True)
class Drift:
    """By how much what is measured moves between one reading and the next: so much, and a share of itself."""

    constant: float
    share: float

    def of(self, value: float) -> float:
        return self.constant + self.share * value


def autoranged(resolution: float, value: float) -> float:
    """The last digit of an autoranging display, which grows with the range."""
    ranges_up = max(0, ceil(log10(value / _FIRST_RANGE_COUNTS / resolution))) if value > 0 else 0
    return float(resolution * 10**ranges_up)


def displayed(
    true: float, measurement: Measurement, ability: Ability, drift: Drift, errors: Errors, *, autoranging: bool = False
) -> float:
    """What a tester with these errors may show of a true value, in its unit."""
    gain = errors.gain(measurement.instrument, measurement.quantity)
    exact = true * (1 + gain * ability.percent / 100)
    step = ability.resolution
    while autoranging and exact > _FIRST_RANGE_COUNTS * step:
        step *= 10
    noise = errors.rng.uniform(-1, 1) * (ability.counts * step - step / 2 + drift.of(exact))
    return max(0.0, float(np.round(np.round((exact + noise) / step) * step, 6)))


def stepped(name: str, measurement: Measurement, true: float, errors: Errors) -> Reading:
    """A step is sure to be lit at its voltage and may light somewhat below."""
    lit = [s for s in _STEPS_V if true >= s * errors.rng.uniform(STEP_LIGHTS_FROM, 1.0)]
    dark = [s for s in _STEPS_V if s > max(lit, default=0.0)]
    return Reading(name, measurement, at_least=max(lit) if lit else None, below=min(dark) if dark else None)
