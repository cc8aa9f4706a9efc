"""Loops: what a loop tester shows is what volts with and without a load say, and it strikes out as much."""

import numpy as np
import pytest

from evenprobe.conditions import CONDITIONS
from evenprobe.interpretation import ensemble_for, interpret
from evenprobe.quantities import LOOP, VOLTAGE, Kept, Measurement, Reading, weigh_all
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from tests.core.installations import continental, outlet, standing, volts

TESTER = Instrument("loop", kinds.LOOP_TESTER, proved=True)
POINT = continental()
L, N, PE = Terminal.L, Terminal.N, Terminal.PE
BY_NEUTRAL, BY_EARTH = Measurement(LOOP, L, N, TESTER), Measurement(LOOP, L, PE, TESTER)


def shown(condition, measurement, point=POINT):
    ensemble = ensemble_for(point)
    return ensemble.predicted(measurement)[ensemble.block_of(CONDITIONS[condition])]


@pytest.mark.parametrize("back", [N, PE])
def test_it_is_what_a_known_load_takes_off_the_volts(back):
    """Ohm's law: a small load between the contacts drops the loop's ohms times its current."""
    amperes, nominal = 0.1, POINT.system.nominal_volts
    alone = Measurement(VOLTAGE, L, back, nothing_else_on=True)
    loaded = Measurement(VOLTAGE, L, back, load_here_a=amperes, nothing_else_on=True, load_between=(L, back))
    ensemble = ensemble_for(POINT)
    block = ensemble.block_of(CONDITIONS["correct"])
    before, after = (ensemble.predicted(m)[block] for m in (alone, loaded))
    current = amperes * after / nominal
    loop = ensemble.predicted(Measurement(LOOP, L, back, TESTER, nothing_else_on=True))[block]
    assert np.median(np.abs((before - after) / current / loop - 1)) < 0.2


def test_a_poor_joint_is_in_the_loops_that_go_through_it():
    poor_neutral, poor_earth = "high-resistance-neutral", "high-resistance-earth"
    assert shown(poor_neutral, BY_NEUTRAL).min() > 0.2
    assert np.median(shown(poor_neutral, BY_EARTH)) < np.median(shown(poor_neutral, BY_NEUTRAL))
    assert shown(poor_earth, BY_EARTH).min() > 1.5
    assert shown("open-earth", BY_EARTH).min() > 100.0


def test_two_loops_strike_out_what_takes_a_load_otherwise():
    sound = [volts("L-N", 230.0), volts("L-PE", 230.1), volts("N-PE", 0.1)]
    loops = [Reading("by neutral", BY_NEUTRAL, value=0.5), Reading("by earth", BY_EARTH, value=0.6)]
    without, then = standing(interpret(POINT, sound)), standing(interpret(POINT, [*sound, *loops]))
    assert "correct" in then
    assert {"high-resistance-neutral", "high-resistance-earth"} & without
    assert not {"high-resistance-earth"} & then


def test_beyond_its_range_the_loop_is_open():
    found = standing(interpret(POINT, [volts("L-N", 230.0), Reading("r", BY_EARTH, over_range=True)]))
    assert "correct" not in found
    assert "open-earth" in found


@pytest.mark.parametrize(
    "by", [Instrument("m", kinds.MULTIMETER, proved=True), Instrument("l", kinds.LOOP_TESTER, proved=False)]
)
def test_what_cannot_show_it_or_was_not_proved_does_not_count(by):
    assert isinstance(weigh_all([Reading("r", Measurement(LOOP, L, PE, by), value=0.5)], POINT)[0], Kept)


def test_whoever_has_one_is_asked_for_it():
    kit = [Instrument("m", kinds.MULTIMETER, proved=True), TESTER]
    sound = [volts("L-N", 120.0), volts("L-PE", 120.1), volts("N-PE", 0.1)]
    assert any(t.measurement.quantity is LOOP for t in interpret(outlet(), sound, kit).next_tests)
