"""What is looked at again before it is struck out, what a limit is held against, and what is worth asking next."""

import numpy as np
import pytest
from bench.draws import draw, points

from evenprobe.interpretation import Bank
from evenprobe.interpretation.fit import distances
from evenprobe.interpretation.refine import FITS, Start, refine
from evenprobe.testers import Evidence, weigh
from evenprobe.wiring import Terminal, conditions_for
from tests.core.installations import continental, outlet, read, volts


def evidence_of(facts, number):
    drawn = draw(facts, np.random.default_rng([21, number]))
    weighed = [w for r in drawn.readings for w in weigh(r, facts.system.nominal_volts)]
    return drawn.truth, [w for w in weighed if isinstance(w, Evidence)]


@pytest.mark.parametrize("number", range(6))
def test_refining_never_ends_farther_off_than_it_began(number):
    facts = points()[0]
    bank = Bank(facts, 64)
    truth, evidence = evidence_of(facts, number)
    block = next(rows for c, rows in bank.blocks if c.id == truth.id)
    few = refine(bank.installation, evidence, [Start(truth, bank.cube[block][:1])])[truth.id].miss
    begun = refine(bank.installation, evidence, [Start(truth, bank.cube[block][:16])])[truth.id].miss
    assert begun <= max(few, FITS)


def test_a_voltage_far_above_the_band_never_fits_the_correct_condition():
    facts = outlet()
    bank = Bank(facts, 64)
    (evidence,) = weigh(volts("L-N", 180.0), facts.system.nominal_volts)
    correct, block = bank.blocks[0]
    assert refine(bank.installation, [evidence], [Start(correct, bank.cube[block])])["correct"].miss > FITS


def test_a_sample_that_shows_the_reading_has_nowhere_to_move():
    facts = outlet()
    evidence = [w for v in ("L-N", "L-PE") for w in weigh(volts(v, 120.0), facts.system.nominal_volts)]
    predicted = np.array([[120.0, 110.0, 60.0], [120.0, 111.0, 119.0]])
    moves = distances(evidence, predicted, np.ones(3))
    assert moves[0] == pytest.approx(0, abs=1e-12)
    assert (moves[1:] > 0).all()


def test_everything_on_the_circuit_is_tried_there_and_not():
    unknowns = Bank(outlet(), 4).installation.unknowns
    ways = unknowns(unknowns.every_way(np.full(unknowns.count, 0.5)))
    there = {
        (load > 0, filters > 0) for load, filters in zip(ways["other_load_a"], ways["filters_fitted"], strict=True)
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
