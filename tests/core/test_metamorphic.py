"""What must hold between two interpretations, whatever either says: the physics knows no probes, names or order."""

from dataclasses import replace

import numpy as np
import pytest
from bench.draws import draw, points

from evenprobe.interpretation import Verdict, interpret
from evenprobe.quantities import PRESENCE, VOLTAGE, Measurement, Reading
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from tests.core.installations import outlet, standing, volts

POINTS = points()
SOME = [(2, 0), (21, 3), (38, 1), (57, 2)]
"""Points of one, two and three lines, and a survey of each."""
SOUND = (("L-N", 119.8), ("L-PE", 119.7), ("N-PE", 0.1))
FAULTY = (("L-N", 119.8), ("L-PE", 64.0), ("N-PE", 55.0))


def drawn(index, seed):
    return POINTS[index], list(draw(POINTS[index], np.random.default_rng([77, index, seed])).readings)


def of(pairs, **how):
    return [volts(pair, value, **how) for pair, value in pairs]


@pytest.mark.parametrize(("index", "seed"), SOME)
def test_which_probe_was_where_makes_no_difference_to_volts_that_alternate(index, seed):
    point, readings = drawn(index, seed)

    def turned(reading):
        m = reading.measurement
        if m.quantity is not VOLTAGE or m.dc or m.to is None:
            return reading
        return replace(reading, measurement=replace(m, from_=m.to, to=m.from_))

    one, other = interpret(point, readings), interpret(point, [turned(r) for r in readings])
    assert standing(other) == standing(one)
    assert other.verdict == one.verdict


@pytest.mark.parametrize(("index", "seed"), SOME)
def test_the_same_reading_taken_again_with_the_same_tester_tells_nothing_new(index, seed):
    point, readings = drawn(index, seed)
    again = [*readings, *(replace(r, id=f"{r.id} again") for r in readings)]
    one, other = interpret(point, readings), interpret(point, again)
    assert standing(other) == standing(one)
    assert other.verdict == one.verdict


@pytest.mark.parametrize(("index", "seed"), SOME)
def test_what_a_reading_is_called_is_nobody_s_business(index, seed):
    point, readings = drawn(index, seed)
    renamed = [replace(r, id=f"{number:03}") for number, r in enumerate(readings)]
    assert standing(interpret(point, renamed)) == standing(interpret(point, readings))


@pytest.mark.parametrize("pairs", [SOUND, FAULTY])
def test_a_worse_tester_never_rules_out_more(pairs):
    good = Instrument("m1", kinds.MULTIMETER, proved=True, accuracy_percent=0.5, accuracy_counts=2)
    bad = replace(good, accuracy_percent=5.0)
    left_by_good = standing(interpret(outlet(), of(pairs, instrument=good)))
    assert left_by_good <= standing(interpret(outlet(), of(pairs, instrument=bad)))


@pytest.mark.parametrize("pairs", [SOUND, FAULTY])
def test_a_tester_that_failed_its_proof_strikes_nothing_out(pairs):
    failed = Instrument("m1", kinds.MULTIMETER, proved=False)
    assert standing(interpret(outlet(), of(pairs, instrument=failed))) == standing(interpret(outlet(), []))


@pytest.mark.parametrize("pairs", [SOUND, FAULTY])
def test_one_reading_more_only_ever_takes_away(pairs):
    readings = of(pairs)
    left = standing(interpret(outlet(), []))
    for taken in range(1, len(readings) + 1):
        after = standing(interpret(outlet(), readings[:taken]))
        assert after <= left
        left = after


def test_silence_of_a_detector_takes_nothing_away_and_an_alarm_makes_nothing_better():
    detector = Instrument("d1", kinds.NON_CONTACT, proved=True)
    at_earth = Measurement(PRESENCE, Terminal.PE, None, detector)
    before = interpret(outlet(), of(SOUND))
    silent = interpret(outlet(), [*of(SOUND), Reading("quiet", at_earth, alarm=False)])
    assert standing(silent) == standing(before)
    alarm = interpret(outlet(), [*of(SOUND), Reading("loud", at_earth, alarm=True)])
    assert alarm.verdict is Verdict.DANGER


def test_what_is_not_known_of_the_circuit_is_never_held_against_a_fault():
    """With less on record everything that stood still stands, but for what only a longer run would explain."""
    known, unknown = outlet(), replace(outlet(), circuit=replace(outlet().circuit, length_m=None))
    dangerous = {o.condition.id for o in interpret(known, of(FAULTY)).conditions if o.standing and o.severity.can_hurt}
    assert dangerous <= standing(interpret(unknown, of(FAULTY)))


def test_a_reading_withdrawn_leaves_what_was_before_it():
    readings = of(SOUND)
    assert interpret(outlet(), readings[:2]) == interpret(outlet(), [r for r in readings if r is not readings[2]])
