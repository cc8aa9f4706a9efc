"""A point with a hidden condition, read by testers with their full error.

Noise is uniform over everything the error model allows, corners included: a gain common to a tester's
readings of one quantity, counts of the display, drift between readings, and rounding to the display.
"""

import numpy as np

from evenprobe.interpretation.samples import Samples
from evenprobe.supplies.test_limits import residual_span_ma
from evenprobe.testers import (
    KINDS,
    Instrument,
    InstrumentKind,
    Measurement,
    Quantity,
    Reading,
    lamp_volts,
    lamps_on,
    port_of,
    potential,
)
from evenprobe.testers.instruments import (
    ALARM_CERTAIN_VOLTS,
    ALARM_POSSIBLE_VOLTS,
    LAMP_DARK_SHARE,
    LAMP_LIT_SHARE,
    STEP_LIGHTS_FROM,
    Ability,
)
from evenprobe.testers.weighing import (
    DRIFT_AMPERES,
    DRIFT_AMPERES_SHARE,
    DRIFT_SHARE,
    DRIFT_VOLTS,
    FIRST_RANGE_COUNTS,
    JOINT_OHMS,
    JOINT_SHARE,
)
from evenprobe.wiring import Condition, Installation, PointFacts, Terminal
from evenprobe.wiring.modes import AS_FOUND

OVER_RANGE_OHM = 40e6
DEVICES_MA = (5.0, 10.0, 30.0)
DRIFTS = {
    Quantity.VOLTAGE: (DRIFT_VOLTS, DRIFT_SHARE),
    Quantity.CURRENT: (DRIFT_AMPERES, DRIFT_AMPERES_SHARE),
    Quantity.RESISTANCE: (JOINT_OHMS, JOINT_SHARE),
}
DC_OFFSET_VOLTS = 0.3
"""What a DC range may show of a live AC conductor."""
STEPS_V = (12.0, 50.0, 120.0, 230.0, 400.0, 690.0)


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

    def read(self, name: str, measurement: Measurement, errors: TesterErrors) -> Reading:
        """What a person would write down."""
        if measurement.quantity is Quantity.PRESENCE:
            return Reading(name, measurement, alarm=self._alarm(measurement, errors))
        if measurement.quantity is Quantity.LAMPS:
            return Reading(name, measurement, lit=self._lit(errors))
        if measurement.quantity is Quantity.TRIP:
            return Reading(name, measurement, tripped=self._trips(measurement, errors))
        if measurement.quantity is Quantity.SEQUENCE:
            return Reading(name, measurement, value=float(np.round(self.samples.predicted(measurement)[0])))
        if measurement.quantity is Quantity.INSULATION:
            raise ValueError("how well it insulates is no part of a hidden point")
        if measurement.dc:
            return Reading(name, measurement, value=self._direct(measurement, errors))
        true = float(self.samples.predicted(measurement)[0])
        if measurement.quantity is Quantity.RESISTANCE:
            ability = measurement.instrument.ohms()
            if ability is None or true > OVER_RANGE_OHM:
                return Reading(name, measurement, over_range=True)
            return Reading(name, measurement, value=_displayed(true, measurement, ability, errors))
        current = measurement.quantity is Quantity.CURRENT
        ability = measurement.instrument.amps() if current else measurement.instrument.volts()
        if ability is None:
            raise ValueError(f"a {measurement.instrument.kind} shows no {measurement.quantity}")
        if measurement.instrument.kind is InstrumentKind.TWO_POLE and not current:
            return _stepped(name, measurement, true, errors)
        return Reading(name, measurement, value=_displayed(true, measurement, ability, errors))

    def _direct(self, measurement: Measurement, errors: TesterErrors) -> float:
        """With its sign. On an AC conductor a DC range shows its offset and no more; the casing hangs on the earth."""
        ability = measurement.instrument.volts()
        if ability is None:
            raise ValueError(f"a {measurement.instrument.kind} shows no volts")
        ends = (Terminal(port_of(end)) for end in (measurement.from_, measurement.to) if end is not None)
        at, against = (self.direct_volts.get(end, 0.0) for end in ends)
        offset = errors.rng.uniform(-1, 1) * DC_OFFSET_VOLTS
        exact = (at - against) * (1 + errors.gain(measurement.instrument, Quantity.VOLTAGE) * ability.percent / 100)
        return float(np.round(np.round((exact + offset) / ability.resolution) * ability.resolution, 6))

    def _alarm(self, measurement: Measurement, errors: TesterErrors) -> bool:
        if measurement.from_ is None or KINDS[measurement.instrument.kind].contact:
            raise ValueError("presence is what a non-contact detector says of one terminal")
        volts = float(potential(measurement.from_, self.samples.solved(AS_FOUND))[0])
        return volts > errors.rng.uniform(ALARM_POSSIBLE_VOLTS, ALARM_CERTAIN_VOLTS)

    def _trips(self, measurement: Measurement, errors: TesterErrors) -> bool:
        """The circuit's own device, or where none is recorded one of those there are."""
        circuit = self.samples.installation.point.circuit
        rated_ma = circuit.residual_ma or float(errors.rng.choice(DEVICES_MA))
        trips_at = errors.rng.uniform(*residual_span_ma(rated_ma))
        return 1000 * float(self.samples.predicted(measurement)[0]) >= trips_at

    def _lit(self, errors: TesterErrors) -> dict[str, bool]:
        installation = self.samples.installation
        across = lamp_volts(self.samples.solved(AS_FOUND))
        shares = {
            lamp: float(across[lamp][0]) / installation.point.system.nominal_volts
            for lamp in lamps_on(installation.point)
        }
        return {lamp: share > errors.rng.uniform(LAMP_DARK_SHARE, LAMP_LIT_SHARE) for lamp, share in shares.items()}


def _displayed(true: float, measurement: Measurement, ability: Ability, errors: TesterErrors) -> float:
    ohms = measurement.quantity is Quantity.RESISTANCE
    drift, share = DRIFTS[measurement.quantity]
    gain = errors.gain(measurement.instrument, measurement.quantity)
    exact = true * (1 + gain * ability.percent / 100)
    step = ability.resolution
    while ohms and exact > FIRST_RANGE_COUNTS * step:
        step *= 10
    noise = errors.rng.uniform(-1, 1) * (ability.counts * step - step / 2 + drift + share * exact)
    return max(0.0, float(np.round(np.round((exact + noise) / step) * step, 6)))


def _stepped(name: str, measurement: Measurement, true: float, errors: TesterErrors) -> Reading:
    """A step is sure to be lit at its voltage and may light somewhat below."""
    lit = [s for s in STEPS_V if true >= s * errors.rng.uniform(STEP_LIGHTS_FROM, 1.0)]
    dark = [s for s in STEPS_V if s > max(lit, default=0.0)]
    return Reading(name, measurement, at_least=max(lit) if lit else None, below=min(dark) if dark else None)
