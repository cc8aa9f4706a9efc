"""The ensemble: samples that repeat, answer any reading, and know what they leave unseen."""

import gc
import weakref

import numpy as np
import pytest
from bench.draws import draw, points
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.conditions import CONDITIONS
from evenprobe.interpretation import Ensemble, ensemble_for, forget_ensembles
from evenprobe.interpretation.samples import Samples
from evenprobe.quantities import VOLTAGE, Evidence, Measurement, weigh
from evenprobe.wiring import Terminal
from evenprobe.wiring.unknowns import Range
from tests.core.installations import continental, ohms, outlet, read, volts

LINE_TO_NEUTRAL = Measurement(VOLTAGE, Terminal.L, Terminal.N)
shares = st.floats(0, 1, allow_nan=False)


@pytest.fixture(scope="module")
def ensemble():
    return Ensemble(outlet(), 64)


@given(u=shares, v=shares, shape=st.sampled_from(["even", "log", "square"]))
def test_a_range_is_monotone_and_keeps_its_ends(u, v, shape):
    range_ = Range(0.5, 40.0, shape)
    low, high = range_.at(np.array([min(u, v), max(u, v)]))
    assert 0.5 <= low <= high <= 40.0 + 1e-9
    assert range_.at(np.array([0.0, 1.0])) == pytest.approx([0.5, 40.0])


@given(u=shares, absent=st.floats(0.05, 0.9))
def test_what_may_be_absent_is_nothing_or_within_its_range(u, absent):
    (value,) = Range(0.02, 16.0, "square", absent).at(np.array([u]))
    assert value == 0.0 if u <= absent else 0.02 <= value <= 16.0


def test_every_unknown_is_mapped_as_its_own_range_says(ensemble):
    unknowns = ensemble.installation.unknowns
    values = unknowns(ensemble.cube[:64])
    for axis, name in enumerate(unknowns.names):
        assert values[name] == pytest.approx(unknowns.ranges[name].at(ensemble.cube[:64, axis])), name


def test_the_same_point_always_gets_the_same_samples():
    assert np.array_equal(Ensemble(outlet(), 32).cube, Ensemble(outlet(), 32).cube)
    assert Ensemble(outlet(), 32).installation.unknowns.count == Ensemble(continental(), 32).installation.unknowns.count


def test_what_a_condition_shows_lies_within_what_it_is_said_to_show(ensemble):
    (e,) = weigh(volts("L-N", 120.0), outlet())
    seen = ensemble.shown_range(e)
    shown = ensemble.span(e.measurement)
    for number, (_, block) in enumerate(ensemble.blocks):
        assert ensemble.number_of(block) == number
        own = shown.of(block)
        assert (seen.least[number] <= own.least * ensemble.scale[0][block] + 1e-9).all()
        assert (seen.most[number] >= own.most * ensemble.scale[1][block] - 1e-9).all()
        assert seen.reach_low[number] <= seen.least[number]
        assert seen.reach_high[number] >= seen.most[number]


def test_ohms_do_not_grow_with_the_supply(ensemble):
    (e,) = weigh(ohms("N-PE", 0.3), outlet())
    seen = ensemble.shown_range(e)
    own = ensemble.span(e.measurement).of(ensemble.blocks[0][1])
    assert (seen.least[0], seen.most[0]) == pytest.approx((own.least.min(), own.most.max()))


def test_some_of_the_samples_answer_as_they_did_among_all(ensemble):
    rows = np.arange(3, len(ensemble.cube), 7)
    some = Samples(ensemble.installation, ensemble.cube, ensemble.blocks).select(rows)
    assert sum(block.stop - block.start for _, block in some.blocks) == len(rows)
    assert some.predicted(LINE_TO_NEUTRAL) == pytest.approx(ensemble.predicted(LINE_TO_NEUTRAL)[rows])
    solved_first = ensemble.select(rows)
    assert solved_first.predicted(LINE_TO_NEUTRAL) == pytest.approx(some.predicted(LINE_TO_NEUTRAL))


def test_scaling_the_source_scales_what_a_sample_shows(ensemble):
    """Of a faulty one; what a sound one carries depends on how near its supply is to the foot of the band."""
    faulty = CONDITIONS["open-earth"]
    cube = ensemble.cube[ensemble.block_of(faulty)][1:9]
    moved = ensemble.installation.with_source(cube, faulty, np.full(len(cube), 1.02))
    before = Samples(ensemble.installation, cube, [(faulty, slice(0, 8))]).predicted(LINE_TO_NEUTRAL)
    after = Samples(ensemble.installation, moved, [(faulty, slice(0, 8))]).predicted(LINE_TO_NEUTRAL)
    within = (moved[:, ensemble.installation.unknowns.names.index("source_volts")] < 1.0).nonzero()[0]
    assert len(within)
    assert after[within] == pytest.approx(1.02 * before[within], rel=1e-9)


def test_potentials_are_against_the_mass_of_earth(ensemble):
    correct = np.arange(ensemble.samples)
    earth, line, case = ensemble.potentials([Terminal.PE, Terminal.L, Terminal.CASE], correct)
    assert (earth < 15).all()
    assert (line > 90).all()
    assert case == pytest.approx(earth)


@pytest.mark.parametrize("number", range(3, 60, 14))
def test_what_a_search_sees_is_what_the_ensemble_shows(number):
    """With each load along the run side by side, or one after the other."""
    facts = points()[number]
    ensemble = Ensemble(facts, 4)
    drawn = draw(facts, np.random.default_rng([6, number])).readings
    evidence = [w for r in drawn for w in weigh(r, facts) if isinstance(w, Evidence)]
    searched = Samples(ensemble.installation, ensemble.cube, ensemble.blocks, with_slopes=True).spans(evidence)
    shown = ensemble.spans(evidence)
    assert searched.least == pytest.approx(shown.least, rel=1e-6, abs=1e-6)
    assert searched.most == pytest.approx(shown.most, rel=1e-6, abs=1e-6)


def test_what_is_foreseen_is_what_would_be_shown(ensemble):
    rows = np.array([5, 900, 17, 5, 1500])
    once = ensemble.potentials([Terminal.L, Terminal.PE], rows)
    again = ensemble.potentials([Terminal.PE], rows[::-1])
    assert (again[0][::-1] == once[1]).all()
    assert np.abs(ensemble.phasors([Terminal.L, Terminal.PE], rows)) == pytest.approx(once)


def test_a_forgotten_ensemble_is_gone_at_once():
    """Without waiting for the collector, which counts objects and not how large they are."""
    gc.disable()
    try:
        forget_ensembles()
        gone = weakref.ref(ensemble_for(outlet()))
        read(outlet(), volts("L-N", 120.4), volts("N-PE", 0.2))
        assert gone() is not None
        forget_ensembles()
        assert gone() is None
    finally:
        gc.enable()
