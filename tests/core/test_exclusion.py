"""What is looked at again before it is struck out, what a limit is held against, and what is worth asking next."""

import numpy as np
import pytest
from bench.draws import draw, points

from evenprobe.conditions import conditions_for
from evenprobe.interpretation import Ensemble
from evenprobe.interpretation.local_search import FITS, Start, search_from
from evenprobe.interpretation.misfit import distances
from evenprobe.interpretation.pursuit import hops
from evenprobe.interpretation.samples import Span
from evenprobe.quantities import Evidence, weigh
from evenprobe.wiring import Terminal
from evenprobe.wiring.unknowns import amperes
from tests.core.installations import continental, outlet, read, volts


def evidence_of(facts, number):
    """Of a survey in which something counts."""
    rng = np.random.default_rng([21, number])
    while True:
        drawn = draw(facts, rng)
        evidence = [w for r in drawn.readings for w in weigh(r, facts) if isinstance(w, Evidence)]
        if evidence:
            return drawn.truth, evidence


def samples_of(ensemble, condition):
    return ensemble.cube[next(rows for c, rows in ensemble.blocks if c.id == condition.id)]


def found(ensemble, evidence, condition, samples, **how):
    """What becomes of the first samples of a condition moved towards all of the evidence."""
    start = Start(condition, samples_of(ensemble, condition)[:samples], np.ones(len(evidence), bool))
    return search_from(ensemble.installation, evidence, [start], **how)[condition.id]


@pytest.mark.parametrize("number", range(6))
def test_refining_never_ends_farther_off_than_it_began(number):
    facts = points()[0]
    ensemble = Ensemble(facts, 64)
    truth, evidence = evidence_of(facts, number)
    assert found(ensemble, evidence, truth, 16).misfit <= max(found(ensemble, evidence, truth, 1).misfit, FITS)


def test_a_voltage_far_above_the_band_never_fits_the_correct_condition():
    facts = outlet()
    ensemble = Ensemble(facts, 64)
    (evidence,) = weigh(volts("L-N", 180.0), facts)
    assert found(ensemble, [evidence], ensemble.conditions[0], 64).misfit > FITS


def test_what_is_moved_beside_others_ends_where_it_would_alone():
    """Starts of several conditions, each with readings of its own to meet, go together and do not touch."""
    facts = points()[0]
    ensemble = Ensemble(facts, 64)
    evidence = [w for v in ("L-N", "L-PE", "N-PE") for w in weigh(volts(v, 118.0 if v != "N-PE" else 9.0), facts)]
    two, one = np.array([True, False, True]), np.array([False, True, False])
    sound, opened = (next(c for c in ensemble.conditions if c.id == name) for name in ("correct", "open-neutral"))
    starts = [Start(sound, samples_of(ensemble, sound)[:8], two), Start(opened, samples_of(ensemble, opened)[:8], one)]
    together = search_from(ensemble.installation, evidence, starts)
    for start in starts:
        own = [e for e, wanted in zip(evidence, start.meets, strict=True) if wanted]
        alone = found(ensemble, own, start.condition, 8)
        assert together[start.condition.id].misfit == pytest.approx(alone.misfit, rel=1e-6)
        assert together[start.condition.id].cube == pytest.approx(alone.cube, abs=1e-6)


def test_a_sample_that_shows_the_reading_has_nowhere_to_move():
    facts = outlet()
    evidence = [w for v in ("L-N", "L-PE") for w in weigh(volts(v, 120.0), facts)]
    shown = np.array([[120.0, 110.0, 60.0], [120.0, 111.0, 119.0]])
    moves = distances(evidence, Span(shown, shown, np.zeros((2, 3), int), np.zeros((2, 3), int)), np.ones(3))
    assert moves[0] == pytest.approx(0, abs=1e-12)
    assert (moves[1:] > 0).all()


def test_everything_on_the_circuit_is_tried_there_and_not():
    unknowns = Ensemble(outlet(), 4).installation.unknowns
    ways = unknowns(unknowns.every_way(np.full(unknowns.count, 0.5)))
    there = {
        (load > 0, filters > 0)
        for load, filters in zip(ways[amperes("tap", "line", "neutral")], ways["filters_fitted"], strict=True)
    }
    assert there == {(False, False), (False, True), (True, False), (True, True)}


def test_nothing_is_supposed_of_a_wire_the_point_does_not_have():
    two_wire = outlet()
    two_wire = type(two_wire)(
        two_wire.practice, two_wire.system, two_wire.earthing, two_wire.kind, (Terminal.L, Terminal.N)
    )
    ids = {c.id for c in conditions_for(two_wire)}
    assert "open-neutral" in ids
    assert not ids & {"open-earth", "earth-from-neutral", "live-casing", "line-earth-swapped", "source-not-bonded"}


def test_neutral_to_earth_is_judged_at_whichever_contact_is_the_neutral():
    turned = read(continental(), volts("L-N", 231), volts("L-PE", 0.4), volts("N-PE", 231))
    judged = {j.reading: j for j in turned.judgements if j.limit.id == "n-pe.unloaded"}
    assert [j.interval[1] < 5 for j in judged.values()] == [True]
    polarised = read(outlet(), volts("L-N", 120), volts("L-PE", 0.4), volts("N-PE", 120))
    assert any(j.interval[0] > 100 for j in polarised.judgements if j.limit.id == "n-pe.unloaded")


def test_hops_stay_in_the_cube_and_keep_some_of_where_they_come_from():
    ends = np.random.default_rng(1).random((3, 40))
    hopped = hops(ends, 64, np.random.default_rng(2))
    assert hopped.shape == (64, 40)
    assert ((hopped >= 0) & (hopped <= 1)).all()
    kept = (hopped[:, None] == ends).mean(axis=2).max(axis=1)
    assert kept[:8].mean() > 0.7
    assert kept[-8:].mean() < 0.4
    assert np.array_equal(hopped, hops(ends, 64, np.random.default_rng(2)))


@pytest.mark.parametrize("number", range(3))
def test_patience_finds_no_less_and_ends_lie_in_the_cube(number):
    facts = points()[3]
    ensemble = Ensemble(facts, 64)
    truth, evidence = evidence_of(facts, number)
    hasty = found(ensemble, evidence, truth, 16)
    patient = found(ensemble, evidence, truth, 16, patient=True)
    assert patient.misfit <= max(hasty.misfit, FITS)
    for arrival in (hasty, patient):
        assert arrival.cube.shape[1] == ensemble.installation.unknowns.count
        assert ((arrival.cube >= 0) & (arrival.cube <= 1)).all()


def test_nothing_to_start_from_arrives_nowhere():
    ensemble = Ensemble(outlet(), 4)
    assert search_from(ensemble.installation, weigh(volts("L-N", 120.0), outlet()), []) == {}


def test_a_reading_far_beyond_a_condition_excludes_it_without_a_search(monkeypatch):
    """A supply at most ten percent low cannot show the full voltage, whatever its samples."""
    searched = []

    def noted(_installation, _evidence, starts, **_how):
        searched.extend(s.condition.id for s in starts)
        return {}

    monkeypatch.setattr("evenprobe.interpretation.pursuit.search_from", noted)
    result = read(outlet(), volts("L-N", 125.5), volts("L-PE", 125.4), volts("N-PE", 0.1))
    assert {"supply-low", "wrong-system", "line-earth-swapped"} & set(searched) == set()
    assert "supply-low" not in {o.condition.id for o in result.conditions if o.standing}


@pytest.mark.parametrize(("pair", "condition"), [("PE-REF", "earth-from-neutral-swapped"), ("N-PE", "open-earth")])
def test_the_reason_names_a_reading_that_the_condition_would_not_show(pair, condition):
    taken = [volts("L-N", 120.4), volts("L-PE", 120.5), volts("N-PE", 0.1), volts("PE-REF", 0.1)]
    result = read(outlet(), *taken)
    outcome = next(o for o in result.conditions if o.condition.id == condition)
    assert not outcome.standing
    (reason,) = outcome.reasons
    low, high = reason.would_show
    assert reason.reading in {r.id for r in taken}
    assert not low - 0.5 <= reason.seen <= high + 0.5, pair
