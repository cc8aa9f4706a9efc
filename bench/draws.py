"""Random surveys with a known truth: a random sample of a random condition, read by testers with their full error."""

from dataclasses import dataclass, replace
from itertools import product

import numpy as np

from evenprobe.interpretation.bank import Samples, mode_of
from evenprobe.supplies import SYSTEMS, Earthing, PracticeId
from evenprobe.testers import Instrument, InstrumentKind, Measurement, Quantity, Reading
from evenprobe.testers.evidence import DRIFT_SHARE, DRIFT_VOLTS, JOINT_OHMS, JOINT_SHARE
from evenprobe.wiring import (
    CircuitFacts,
    Condition,
    Installation,
    PointFacts,
    PointKind,
    Terminal,
    conditions_for,
    conductor_named,
)

METER = Instrument("meter", InstrumentKind.MULTIMETER, proved=True)
OTHER_METER = Instrument("other", InstrumentKind.MULTIMETER, proved=True, accuracy_percent=0.7, accuracy_counts=2)
STEPPED = Instrument("stepped", InstrumentKind.TWO_POLE, proved=True)
STEPS = (12, 50, 120, 230, 400, 690)
CONTACTS = (Terminal.L, Terminal.N, Terminal.PE)
PAIRS = ((Terminal.L, Terminal.N), (Terminal.L, Terminal.PE), (Terminal.N, Terminal.PE))
TO_REFERENCE = tuple((t, Terminal.REF) for t in CONTACTS)


def points() -> list[PointFacts]:
    """Single-phase points of every system, practice, earthing and way of knowing the circuit."""
    america, continent, britain = PracticeId
    wired = CircuitFacts(15, conductor_named("14 AWG"), 30), CircuitFacts(20, conductor_named("12 AWG"), 18)
    metric = CircuitFacts(16, conductor_named("2.5 mm2"), 24), CircuitFacts(32, conductor_named("2.5 mm2"), 45)
    unknown = CircuitFacts()
    rows = [
        *product([america], ["120"], list(Earthing), [wired[0], unknown]),
        *product([america], ["120/240", "208Y/120", "480Y/277"], [Earthing.TN_C_S], [wired[1]]),
        *product([america], ["standalone-120"], [Earthing.TN_S, Earthing.IT], [wired[1], unknown]),
        *product([continent, britain], ["230"], list(Earthing), [metric[0], unknown]),
        *product([continent], ["230/400"], [Earthing.TN_S, Earthing.TT], [metric[1]]),
        *product([continent, britain], ["standalone-230"], [Earthing.TN_S, Earthing.IT], [metric[0]]),
    ]
    return [
        PointFacts(practice, SYSTEMS[system], earthing, PointKind.OUTLET, CONTACTS, circuit)
        for practice, system, earthing, circuit in rows
    ]


@dataclass(frozen=True)
class Draw:
    truth: Condition
    readings: tuple[Reading, ...]


def draw(point: PointFacts, rng: np.random.Generator) -> Draw:
    """One survey. Noise is uniform over everything the error model allows, its corners included."""
    installation = Installation(point)
    truth = conditions_for(point)[rng.integers(len(conditions_for(point)))]
    sample = Samples(installation, rng.random((1, installation.unknowns.count)), [(truth, slice(0, 1))])
    gain = {(i.id, q): rng.uniform(-1, 1) for i in (METER, OTHER_METER) for q in ("V", "ohm")}
    count = int(rng.integers(1, 13))
    readings = []
    for i in range(count):
        measurement = _measurement(rng, point)
        true = float(sample.predicted(measurement)[0])
        readings.append(_read(f"r{i}", measurement, true, gain, rng))
    return Draw(truth, tuple(readings))


def _measurement(rng: np.random.Generator, point: PointFacts) -> Measurement:
    tester = (METER, METER, METER, OTHER_METER, STEPPED)[rng.integers(5)]
    pairs = PAIRS if rng.random() < 0.75 else TO_REFERENCE
    a, b = pairs[rng.integers(3)]
    if rng.random() < 0.5:
        a, b = b, a
    plain = Measurement(Quantity.VOLTAGE, a, b, tester, "low-z" if rng.random() < 0.2 else "high-z")
    amperes = float(np.round(rng.uniform(2, point.circuit.rating_a or 12), 1))
    kind = rng.random()
    if kind < 0.45:
        return plain
    if kind < 0.62:
        return replace(plain, load_here_a=amperes)
    if kind < 0.80:
        return replace(plain, load_elsewhere_a=amperes)
    if kind < 0.85:
        return replace(plain, device="open")
    a, b = PAIRS[rng.integers(3)]
    return Measurement(Quantity.RESISTANCE, a, b, METER, device="open")


def _read(
    name: str,
    measurement: Measurement,
    true: float,
    gain: dict[tuple[str, str], float],
    rng: np.random.Generator,
) -> Reading:
    tester = measurement.instrument
    if measurement.quantity is Quantity.RESISTANCE:
        ability = tester.ohms()
        assert ability is not None
        drift, share, key = JOINT_OHMS, JOINT_SHARE, "ohm"
        if true > 4e7:
            return Reading(name, measurement, over_range=True)
    elif tester is STEPPED:
        return _step(name, measurement, true, rng)
    else:
        ability = tester.volts()
        assert ability is not None
        drift, share, key = DRIFT_VOLTS, DRIFT_SHARE, "V"
    exact = true * (1 + gain[tester.id, key] * ability.percent / 100)
    display = ability.resolution
    while key == "ohm" and exact > 6000 * display:
        display *= 10
    noise = rng.uniform(-1, 1) * (ability.counts * display - display / 2 + drift + share * exact)
    return Reading(name, measurement, value=max(0.0, float(np.round((exact + noise) / display) * display)))


def _step(name: str, measurement: Measurement, true: float, rng: np.random.Generator) -> Reading:
    """A step is sure to be lit at its voltage and may be from 85 %."""
    lit = [s for s in STEPS if true >= s * rng.uniform(0.85, 1.0)]
    dark = [s for s in STEPS if s > max(lit, default=0)]
    return Reading(
        name,
        measurement,
        at_least=float(max(lit)) if lit else None,
        below=float(min(dark)) if dark else None,
    )
