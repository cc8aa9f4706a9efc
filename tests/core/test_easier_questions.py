"""What is asked of two readings before all are asked about: rounded outward, remembered, and never harder to meet."""

import numpy as np
import pytest
from bench.draws import draw, points
from hypothesis import given, settings
from hypothesis import strategies as st

from evenprobe.interpretation import ensemble_for, forget_ensembles, interpret
from evenprobe.interpretation.local_search import search_from
from evenprobe.interpretation.misfit import misfits, misfits_without_each, worst_two
from evenprobe.interpretation.movement import of_the_source
from evenprobe.interpretation.outward import rounded_outward, whenever, whoever
from evenprobe.quantities import VOLTAGE, Evidence, Measurement, Reading, confining, in_order, weigh
from evenprobe.wiring import Terminal
from tests.core.installations import outlet, read, volts

values = st.floats(0.0, 1e6)
times = st.one_of(st.none(), st.floats(0.0, 1e6))
LINE_TO_NEUTRAL, LINE_TO_EARTH = (Measurement(VOLTAGE, Terminal.L, end) for end in (Terminal.N, Terminal.PE))


@st.composite
def evidence(draw_, measurement=LINE_TO_NEUTRAL):
    low, width, tolerance = draw_(values), draw_(values), draw_(st.floats(1e-3, 1e3))
    reading = Reading(draw_(st.uuids()).hex, measurement, value=low, at=draw_(times))
    return Evidence(reading, low, low + width, tolerance, 0.01, "meter")


@settings(max_examples=200)
@given(st.lists(evidence(), min_size=1, max_size=4))
def test_what_is_rounded_outward_allows_whatever_the_exact_one_does(exact):
    rounded = rounded_outward(exact)
    for e, wider in zip(exact, rounded, strict=True):
        assert wider.low <= e.low * (1 + 1e-12)
        assert wider.high >= e.high * (1 - 1e-12) - 1e-12
        assert e.tolerance * (1 - 1e-12) <= wider.tolerance <= 1.2 * e.tolerance
    assert (of_the_source(rounded) >= of_the_source(exact) - 1e-9).all(), "the source may move by as much and more"


@given(st.lists(evidence(), min_size=2, max_size=4))
def test_nothing_is_wider_where_it_was_rounded_before(exact):
    once = rounded_outward(exact)
    for e, again in zip(once, rounded_outward(once), strict=True):
        assert (again.low, again.high) == pytest.approx((e.low, e.high), rel=0.05, abs=2 * e.tolerance)


@given(st.lists(evidence(), min_size=1, max_size=4), st.floats(-1e5, 1e5))
def test_it_does_not_matter_when_or_under_which_name_a_reading_was_taken(exact, later):
    named = whoever(whenever(exact))
    assert of_the_source(named) == pytest.approx(of_the_source(exact), abs=1e-6)
    assert all(e.reading.at is None or e.reading.at >= 0 for e in named)


def survey_of(point, number):
    rng = np.random.default_rng([8, number])
    drawn = draw(point, rng).readings
    return confining(in_order([w for r in drawn for w in weigh(r, point) if isinstance(w, Evidence)]))


@pytest.mark.parametrize("number", range(2, 60, 12))
def test_the_miss_without_each_reading_is_that_of_the_others(number):
    point = points()[number]
    found, ensemble = survey_of(point, number), ensemble_for(point)
    spans = ensemble.spans(found)
    without = misfits_without_each(found, spans, ensemble.scale)
    for left_out in range(len(found) if len(found) > 1 else 0):
        others = [i for i in range(len(found)) if i != left_out]
        alone = misfits([found[i] for i in others], spans.readings(others), ensemble.scale)
        assert without[left_out] == pytest.approx(alone, rel=1e-12)


@pytest.mark.parametrize("number", range(2, 60, 12))
def test_the_two_that_lie_worst_are_missed_by_most_of_any_two(number):
    point = points()[number]
    found, ensemble = survey_of(point, number), ensemble_for(point)
    spans = ensemble.spans(found)

    def least(pieces):
        return misfits([found[i] for i in pieces], spans.readings(pieces), ensemble.scale).min()

    worst = least(worst_two(found, spans, ensemble.scale))
    assert all(least((i, j)) <= worst for i in range(len(found)) for j in range(i))


def test_the_next_outlet_of_a_circuit_asks_little_anew(monkeypatch):
    """A far condition is looked for once, not at each outlet that shows nearly the same."""
    forget_ensembles()
    read(outlet(), volts("L-N", 120.4), volts("L-PE", 120.5), volts("N-PE", 0.1))
    searched = []

    def noted(installation, found, starts, **how):
        searched.extend(s.condition.id for s in starts)
        return search_from(installation, found, starts, **how)

    monkeypatch.setattr("evenprobe.interpretation.pursuit.search_from", noted)
    answer = read(outlet(), volts("L-N", 120.6), volts("L-PE", 120.6), volts("N-PE", 0.2))
    fallen = {o.condition.id for o in answer.conditions if not o.standing}
    assert "open-earth" in fallen
    assert "open-earth" not in searched


def test_it_makes_no_difference_that_nearly_the_same_was_asked_before():
    point = points()[4]
    readings = draw(point, np.random.default_rng([8, 4])).readings
    forget_ensembles()
    alone = interpret(point, readings)
    forget_ensembles()
    for number in range(3):
        interpret(point, draw(point, np.random.default_rng([8, 4, number])).readings)
    assert interpret(point, readings) == alone
