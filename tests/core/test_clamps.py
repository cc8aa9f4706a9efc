"""A clamp: round one conductor where it leaves the board, round two by mistake, and at the point."""

from dataclasses import replace

import numpy as np
import pytest

from evenprobe.interpretation import ensemble_for, interpret
from evenprobe.quantities import CURRENT, Evidence, Kept, Measurement, Reading, weigh
from evenprobe.quantities.setups import setups_with
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from tests.core.installations import outlet, several, standing, volts

CLAMP = Instrument("c1", kinds.CLAMP, proved=True)
HEALTHY = (volts("L-N", 119.8), volts("L-PE", 119.9), volts("N-PE", 0.1))
ENDS = (Terminal.BOARD_L, Terminal.BOARD_N, Terminal.BOARD_PE)


def clamped(end, **how):
    return Measurement(CURRENT, end, None, CLAMP, **how)


def amperes(end, value, **how):
    return Reading(f"{end} {how}", clamped(end, **how), value=value)


def flows(point, condition, end, **how):
    """Amperes (B,) in a conductor of every sample of a condition."""
    ensemble = ensemble_for(point)
    rows = {c.id: block for c, block in ensemble.blocks}[condition]
    return ensemble.predicted(clamped(end, **how))[rows]


def test_what_goes_out_on_the_line_comes_back_on_the_neutral():
    line, neutral = (flows(outlet(), "correct", end, load_here_a=10.0) for end in ENDS[:2])
    np.testing.assert_allclose(line, neutral, rtol=2e-3)
    assert line.min() > 5.0


def test_nothing_flows_in_a_sound_protective_conductor():
    assert flows(outlet(), "correct", Terminal.BOARD_PE, load_here_a=10.0).max() < 0.05


@pytest.mark.parametrize("end", ENDS[1:])
def test_a_load_comes_back_by_the_earth_where_neutral_and_earth_are_swapped(end):
    loaded = flows(outlet(), "neutral-earth-swapped", end, load_here_a=10.0)
    assert bool(loaded.min() > 5.0) is (end is Terminal.BOARD_PE)


def test_twice_the_load_is_twice_the_current_of_an_unloaded_circuit():
    bare = flows(outlet(), "correct", Terminal.BOARD_L)
    one, two = (flows(outlet(), "correct", Terminal.BOARD_L, load_here_a=a) for a in (5.0, 10.0))
    unloaded = bare < 0.01
    assert unloaded.any()
    np.testing.assert_allclose(two[unloaded] / one[unloaded], 2.0, rtol=0.05)


def test_the_shared_neutral_carries_the_difference_of_two_legs_and_the_sum_on_one():
    point = several("L1 L2 N PE")
    of_one = clamped(Terminal.BOARD_N, load_here_a=10.0, load_between=(Terminal.L1, Terminal.N))
    between = clamped(Terminal.BOARD_N, load_here_a=10.0, load_between=(Terminal.L1, Terminal.L2))
    ensemble = ensemble_for(point)
    rows = {c.id: block for c, block in ensemble.blocks}["correct"]
    assert np.median(ensemble.predicted(of_one)[rows] - ensemble.predicted(between)[rows]) > 0


def test_no_current_in_the_earth_strikes_out_the_swap_and_current_there_leaves_only_it():
    clear = interpret(outlet(), (*HEALTHY, amperes(Terminal.BOARD_PE, 0.0, load_here_a=10.0)))
    assert "neutral-earth-swapped" not in standing(clear)
    assert "correct" in standing(clear)
    found = interpret(outlet(), (*HEALTHY, amperes(Terminal.BOARD_PE, 9.7, load_here_a=10.0)))
    assert standing(found) == {"neutral-earth-swapped", "neutral-earth-joined-on-run"}
    fallen = next(o for o in found.conditions if o.condition.id == "correct")
    assert fallen.reasons[0].quantity.unit == "A"


def test_a_clamp_alone_sees_the_swap_and_no_false_earth():
    currents = [m for m in setups_with(outlet(), CLAMP) if m.quantity is CURRENT]
    assert {m.from_ for m in currents} == set(ENDS)
    readings = [*HEALTHY, *(amperes(end, 9.8, load_here_a=10.0) for end in ENDS[:2]), amperes(ENDS[2], 0.0)]
    assert {"earth-from-neutral", "earth-from-neutral-swapped"} <= standing(interpret(outlet(), readings))


@pytest.mark.parametrize(
    ("measurement", "why"),
    [
        (replace(clamped(Terminal.BOARD_L), to=Terminal.BOARD_N), "cancel"),
        (clamped(Terminal.L), "leaves the board"),
        (clamped(Terminal.BOARD_L, device="open"), "nothing is meant to flow"),
        (replace(clamped(Terminal.BOARD_L), instrument=replace(CLAMP, proved=False)), "not proved"),
        (replace(clamped(Terminal.BOARD_L), instrument=Instrument("t", kinds.TWO_POLE)), "does not measure"),
    ],
)
def test_a_current_that_says_nothing_of_the_wires_is_kept_with_why(measurement, why):
    weighed = weigh(Reading("r", measurement, value=0.3), outlet())
    assert [type(w) for w in weighed] == [Kept]
    assert why in weighed[0].why


def test_a_clamp_reads_within_its_error():
    evidence = weigh(amperes(Terminal.BOARD_L, 10.0), outlet())[0]
    assert isinstance(evidence, Evidence)
    low, high = evidence.interval
    assert 9.5 < low < 10.0 < high < 10.5
