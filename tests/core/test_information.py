"""What a reading is expected to tell: bounds that hold for any samples, and what a cost puts first."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra import numpy as arrays

from evenprobe.interpretation import ensemble_for
from evenprobe.interpretation.elimination import eliminate, likelihoods
from evenprobe.interpretation.next_measurement import next_measurements
from evenprobe.interpretation.next_measurement.candidates import candidates, same_test
from evenprobe.interpretation.next_measurement.cost import cost
from evenprobe.interpretation.next_measurement.information import Expected, _bins, _information
from evenprobe.quantities import INSULATION, RESISTANCE, VOLTAGE, Evidence, Measurement, weigh
from evenprobe.testers import TYPED
from evenprobe.wiring import Terminal
from tests.core.installations import outlet, volts

SAMPLES = 32


@st.composite
def pooled_bins(draw):
    """Bins of a few readings at so many samples of each of a few conditions, and the weights of those."""
    conditions = draw(st.integers(2, 4))
    bins = draw(arrays.arrays(int, (2, conditions * SAMPLES), elements=st.integers(0, 30)))
    weight = draw(arrays.arrays(float, conditions, elements=st.floats(0.05, 1.0)))
    return bins, np.repeat(np.arange(conditions), SAMPLES), weight / weight.sum()


@given(pooled_bins())
def test_no_reading_tells_more_than_there_is_to_know(drawn):
    """Mutual information lies between nothing and the entropy of what is asked (Shannon, 1948)."""
    bins, owner, weight = drawn
    entropy = -(weight * np.log2(weight)).sum()
    bits = _information(bins, owner, weight)
    assert (bits <= entropy + 1e-9).all()


@given(pooled_bins())
def test_which_condition_is_counted_first_makes_no_difference(drawn):
    bins, owner, weight = drawn
    order = np.arange(len(weight))[::-1]
    turned = np.concatenate([bins[:, owner == condition] for condition in order], axis=1)
    assert _information(turned, owner, weight[order]) == pytest.approx(_information(bins, owner, weight))


@given(st.integers(0, 50), st.integers(2, 4))
def test_a_reading_that_is_the_same_whatever_is_wrong_tells_nothing(value, conditions):
    bins = np.full((1, conditions * SAMPLES), value)
    owner, weight = np.repeat(np.arange(conditions), SAMPLES), np.full(conditions, 1 / conditions)
    assert _information(bins, owner, weight) == pytest.approx(0.0, abs=1e-9)


def test_a_reading_that_tells_two_conditions_apart_for_certain_tells_one_bit():
    bins = np.repeat([[0, 20]], SAMPLES, axis=1)
    owner = np.repeat([0, 1], SAMPLES)
    assert _information(bins, owner, np.array([0.5, 0.5])) == pytest.approx([1.0])


@given(st.floats(1.0, 500.0), st.floats(0.1, 5.0), st.floats(0.002, 0.05))
def test_what_a_tester_cannot_tell_apart_is_in_one_bin_or_the_next(value, constant, share):
    error = np.array([[[constant]], [[share]]])
    seen = np.array([[value, value + (constant + share * value)]])
    first, second = _bins(seen, error)[0]
    assert 0 <= second - first <= 1


def stands_after(*readings):
    point = outlet()
    ensemble = ensemble_for(point)
    evidence = [w for reading in readings for w in weigh(reading, point) if isinstance(w, Evidence)]
    elimination = eliminate(ensemble, evidence)
    return ensemble, elimination, likelihoods(ensemble, elimination, [])


def test_what_is_asked_of_the_samples_has_a_row_a_measurement():
    ensemble, elimination, likelihood = stands_after(volts("L-N", 120.0))
    asked = list(candidates(ensemble.point, [volts("L-N", 120.0)], [TYPED]))
    expected = Expected(ensemble, elimination, likelihood, asked)
    assert expected.bits().shape == (len(asked),)
    assert expected.ruled_out().shape == (len(asked), len(elimination.standing))


def test_what_was_measured_is_no_candidate_and_what_differs_by_amperes_alone_is_neither():
    taken = [volts("L-N", 120.0), volts("L-PE", 119.0, load_here_a=9.5)]
    keys = {same_test(m, outlet()) for m in candidates(outlet(), taken, [TYPED])}
    assert not keys & {same_test(reading.measurement, outlet()) for reading in taken}
    again = Measurement(VOLTAGE, Terminal.L, Terminal.PE, TYPED, load_here_a=12.0)
    assert same_test(again, outlet()) == same_test(taken[1].measurement, outlet())


def test_without_a_tester_a_multimeter_is_supposed():
    supposed = list(candidates(outlet(), [], []))
    assert {m.instrument for m in supposed} == {TYPED}
    assert {m.quantity for m in supposed} >= {VOLTAGE, RESISTANCE}
    assert INSULATION not in {m.quantity for m in supposed}


def test_nothing_is_plugged_in_and_metal_comes_first_while_a_danger_stands():
    loaded = Measurement(VOLTAGE, Terminal.L, Terminal.N, TYPED, load_here_a=10.0)
    to_earth = Measurement(VOLTAGE, Terminal.PE, Terminal.REF, TYPED)
    for measurement, dearer in ((loaded, True), (to_earth, False)):
        calm = cost(measurement, danger_stands=False, rules_out=True)
        near = cost(measurement, danger_stands=True, rules_out=True)
        assert (near > calm) is dearer
    plain = Measurement(VOLTAGE, Terminal.L, Terminal.N, TYPED)
    assert cost(plain, danger_stands=True, rules_out=True) == cost(plain, danger_stands=False, rules_out=True)


def test_what_strikes_nothing_out_comes_after_what_does():
    measurement = Measurement(VOLTAGE, Terminal.L, Terminal.N, TYPED)
    strikes = cost(measurement, danger_stands=False, rules_out=True)
    assert cost(measurement, danger_stands=False, rules_out=False) > strikes > 0


def test_at_most_three_are_offered_no_two_for_the_same_end():
    ensemble, elimination, likelihood = stands_after(volts("L-N", 120.0))
    offered, note = next_measurements(ensemble, elimination, likelihood, [volts("L-N", 120.0)], [TYPED])
    assert 0 < len(offered) <= 3
    assert note == ""
    assert len({test.rules_out for test in offered}) == len(offered)
    assert all(test.information_bits > 0 and test.seconds > 0 for test in offered)
