"""Loads: the loop behind an outlet, the drop to expect, the poor joint; and currents against their device."""

from dataclasses import replace

import numpy as np
import pytest

from evenprobe.conditions import CONDITIONS
from evenprobe.deadtests import Result
from evenprobe.limits import limit_for
from evenprobe.loads import draws, loops
from evenprobe.quantities import CURRENT, VOLTAGE, Measurement, Reading
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import CircuitFacts, Terminal, conductor_named
from tests.core.installations import outlet, several, volts

CLAMP = Instrument("c1", kinds.CLAMP, proved=True)
UNDER = {"load_here_a": 10.0}


def read_of(condition, *, seed=1):
    """The three pairs without and with 10 A, of one hidden outlet."""
    hidden = HiddenPoint(outlet(), CONDITIONS[condition], np.random.default_rng(seed))
    errors = TesterErrors(np.random.default_rng(seed + 1))
    pairs = ("L", "N"), ("L", "PE"), ("N", "PE")
    setups = [Measurement(VOLTAGE, Terminal(a), Terminal(b), **how) for how in ({}, UNDER) for a, b in pairs]
    return [hidden.read(f"r{n}", m, errors) for n, m in enumerate(setups)]


def amperes(where, value, **more):
    return Reading("a", Measurement(CURRENT, where and Terminal(where), None, CLAMP), value=value, **more)


def test_ohm_s_law_on_what_is_lost():
    loop = loops(outlet(), (volts("L-N", 120.0), volts("L-N", 114.0, **UNDER)))[0]
    assert loop.pair == (Terminal.L, Terminal.N)
    assert loop.ohm[0] < 6.0 / (10.0 * 114 / 120) < loop.ohm[1]
    assert loop.drop is not None
    assert loop.drop == (pytest.approx(20 * loop.ohm[0]), pytest.approx(20 * loop.ohm[1]))
    assert loop.limit == limit_for("voltage.drop", outlet().practice, outlet().system)


def test_a_loop_needs_both_readings_of_one_tester():
    other = Instrument("m9", kinds.MULTIMETER, proved=True)
    assert loops(outlet(), (volts("L-N", 120.0),)) == ()
    assert loops(outlet(), (volts("L-N", 120.0), volts("L-N", 114.0, instrument=other, **UNDER))) == ()
    assert loops(outlet(), (volts("L-N", 120.0), volts("L-N", 114.0, load_elsewhere_a=10.0))) == ()


@pytest.mark.parametrize("seed", range(4))
def test_a_sound_circuit_has_no_poor_joint(seed):
    loop = loops(outlet(), read_of("correct", seed=seed))[0]
    assert not loop.poor
    assert not any(part.poor for part in loop.parts)
    assert loop.ohm[0] <= loop.expected[1]
    assert loop.expected[0] <= loop.ohm[1]


@pytest.mark.parametrize(("condition", "where"), [("high-resistance-line", "L"), ("high-resistance-neutral", "N")])
def test_the_poor_joint_is_named_and_no_other(condition, where):
    for seed in range(6):
        loop = loops(outlet(), read_of(condition, seed=seed))[0]
        assert {part.terminal for part in loop.parts} == {Terminal.L, Terminal.N}
        assert {part.terminal for part in loop.parts if part.poor} <= {Terminal(where)}
    assert any(p.poor for seed in range(6) for p in loops(outlet(), read_of(condition, seed=seed))[0].parts)


def test_the_parts_add_up_to_the_loop():
    loop = loops(outlet(), read_of("high-resistance-neutral"))[0]
    least, most = (sum(part.ohm[end] for part in loop.parts) for end in (0, 1))
    assert least <= loop.ohm[1]
    assert loop.ohm[0] <= most


def test_a_longer_thinner_run_is_expected_to_have_more():
    readings = (volts("L-N", 120.0), volts("L-N", 118.0, **UNDER))
    short, long = (
        loops(replace(outlet(), circuit=CircuitFacts(20, conductor_named("12 AWG"), metres)), readings)[0].expected
        for metres in (5, 40)
    )
    assert long[0] > short[0]
    assert long[1] > short[1]


def test_two_lines_are_judged_by_what_is_between_them():
    point = several("L1 L2 N PE")
    between = {"load_here_a": 20.0, "load_between": (Terminal.L1, Terminal.L2)}
    loop = loops(point, (volts("L1-L2", 240.0), volts("L1-L2", 236.0, **between)))[0]
    assert loop.ohm[0] < 4.0 / (20 * 236 / 240) < loop.ohm[1]
    assert loop.limit.band.high == pytest.approx(0.03 * 240)


def test_a_running_and_a_starting_current_are_held_against_the_device():
    found = draws(outlet(), (amperes("L", 12.0, most=70.0),), "B")[0]
    assert found.outcome is not None
    assert found.outcome.computed["share_percent"] == pytest.approx(60)
    assert found.outcome.computed["start_multiple"] == pytest.approx(3.5)
    assert found.outcome.result is Result.FAIL
    assert draws(outlet(), (amperes("L", 12.0, most=30.0),), "B")[0].outcome.result is Result.PASS
    assert draws(outlet(), (amperes("L", 12.0, most=70.0),))[0].outcome.result is Result.NOTE


def test_three_hours_and_more_take_less_of_the_device():
    assert draws(outlet(), (amperes("L", 18.0),))[0].outcome.result is Result.PASS
    assert draws(outlet(), (amperes("L", 18.0, continuous=True),))[0].outcome.result is Result.FAIL


@pytest.mark.parametrize(
    ("reading", "says"),
    [
        (Reading("a", Measurement(CURRENT, Terminal.L, Terminal.N, CLAMP), value=0.1), "cancel"),
        (amperes("N", 8.0), "conductor: its current is not held"),
        (amperes("BOARD-PE", 8.0), "conductor: its current is not held"),
    ],
)
def test_what_no_device_can_be_held_against_says_so(reading, says):
    found = draws(outlet(), (reading,))[0]
    assert found.outcome is None
    assert says in found.text


def test_without_a_rating_nothing_is_held_against_it():
    found = draws(replace(outlet(), circuit=CircuitFacts()), (amperes("L", 8.0),))[0]
    assert found.outcome is None
    assert "rating" in found.text


def test_a_load_that_gets_no_volts_says_nothing_of_a_loop():
    assert loops(outlet(), (volts("L-N", 120.0), volts("L-N", 0.0, **UNDER))) == ()
    assert loops(replace(outlet(), terminals=(Terminal.N, Terminal.PE)), (volts("N-PE", 0.0),)) == ()
