"""Readings of different moments: what a supply and other loads explain, and what they do not."""

from dataclasses import replace
from itertools import combinations

import numpy as np
import pytest
from bench.draws import METER, points
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.installation.installation import tap_port
from evenprobe.installation.modes import AS_FOUND, OFF
from evenprobe.interpretation import Ensemble, Verdict, interpret
from evenprobe.interpretation.misfit import misfits
from evenprobe.interpretation.movement import of_the_source, share_after
from evenprobe.interpretation.moving import with_the_supply_moving
from evenprobe.interpretation.samples import Span
from evenprobe.network import Load
from evenprobe.quantities import VOLTAGE, Measurement, Reading, weigh
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from tests.core.installations import continental, outlet, read, standing, volts

SOUND = (volts("L-N", 121.0), volts("L-PE", 119.2), volts("N-PE", 0.2))
"""A heater was switched on between the first and the second."""
seconds = st.floats(0, 1e4, allow_nan=False)


def at(reading, when):
    return replace(reading, at=when)


@given(one=seconds, other=seconds)
def test_the_longer_between_the_further_a_supply_may_be_and_never_beyond_its_most(one, other):
    less, more = sorted((one, other))
    assert 0.003 <= share_after(less) <= share_after(more) <= 0.025


def test_at_one_moment_there_is_one_supply():
    evidence = [w for r in (at(SOUND[0], 5.0), at(SOUND[1], 5.0)) for w in weigh(r, outlet())]
    assert of_the_source(evidence)[0, 1] == 0
    apart = [w for r in (at(SOUND[0], 5.0), at(SOUND[1], 500.0)) for w in weigh(r, outlet())]
    assert of_the_source(apart)[0, 1] == pytest.approx(0.05)


def test_a_heater_between_two_readings_accuses_nobody():
    found = read(outlet(), *SOUND)
    assert "correct" in standing(found)
    assert found.verdict is Verdict.UNCONFIRMED
    assert found.next_tests or interpret(outlet(), SOUND, [r.measurement.instrument for r in SOUND]).next_tests


def test_the_closer_in_time_the_more_two_readings_say():
    """Half a volt of drop by ten amperes: seconds apart a poor joint falls which it does not without times."""
    pair = (volts("L-N", 120.0, nothing_else_on=True), volts("L-N", 119.3, load_here_a=10.0, nothing_else_on=True))
    soon = read(outlet(), at(pair[0], 0.0), at(pair[1], 5.0))
    whenever = read(outlet(), *pair)
    assert "high-resistance-line" in standing(whenever)
    assert standing(soon) < standing(whenever)


def test_with_nothing_else_on_no_other_load_explains_a_sag():
    sagging = {"load_here_a": 10.0}
    without = read(outlet(), volts("L-N", 119.8), volts("L-N", 103.0, **sagging))
    alone = read(
        outlet(), volts("L-N", 119.8, nothing_else_on=True), volts("L-N", 103.0, nothing_else_on=True, **sagging)
    )
    assert standing(alone) <= standing(without)
    assert "correct" not in standing(alone)


def test_whole_volts_on_a_cheap_display_accuse_nobody_and_tenths_do():
    assert "correct" in standing(read(outlet(), volts("L-N", 120), volts("L-PE", 118), volts("N-PE", 1)))


def test_a_reading_that_jumps_is_a_joint_that_comes_and_goes_and_two_volts_are_none():
    rest = (volts("L-PE", 121.1), volts("N-PE", 0.2))
    jumping = read(outlet(), volts("L-N", 121.0), volts("L-N", 96.0, id="again"), *rest)
    assert "intermittent-joint" in standing(jumping)
    kit = [Instrument("m", kinds.MULTIMETER, proved=True)]
    again = (volts("L-N", 121.0), volts("L-N", 96.0, id="again"), *rest)
    there = interpret(outlet(), again, kit).next_tests[0].measurement
    assert {there.from_, there.to} == {Terminal.BOARD_L, Terminal.BOARD_N}, "what jumps there too is the supply's"
    assert jumping.verdict is not Verdict.CONTRADICTORY
    gone = read(outlet(), volts("L-N", 121.0), volts("L-N", 0.4, id="again"), *rest)
    assert "intermittent-joint" in standing(gone), "from sound to open"
    assert gone.next_tests or "panel" in gone.next_tests_note
    steady = read(outlet(), volts("L-N", 121.0), volts("L-N", 119.0, id="again"), *rest)
    assert "intermittent-joint" not in standing(steady)
    assert steady.verdict is Verdict.UNCONFIRMED


def test_what_no_joint_makes_is_none_that_comes_and_goes():
    impossible = read(outlet(), volts("L-N", 121.0), volts("L-N", 300.0, id="again"), volts("N-PE", 0.2))
    assert impossible.verdict is Verdict.CONTRADICTORY
    assert "again" in impossible.retake


def likely(one, other):
    """How likely a sample is that shows the same for both readings, so that the supply must have moved in between."""
    evidence = [w for r in (volts("L-N", one), volts("L-PE", other)) for w in weigh(r, outlet())]
    shows = np.full((2, 1), one)
    own = Span(shows, shows, np.zeros((2, 1), dtype=int), np.zeros((2, 1), dtype=int))
    scale = (np.array([0.8]), np.array([1.2]))
    return with_the_supply_moving(evidence, own, scale, misfits(evidence, own, scale))[0]


def test_the_more_a_supply_has_to_move_the_less_likely_it_is():
    falling = [likely(120.0, 120.0 + volts_more) for volts_more in (0.0, 0.5, 2.0, 4.0, 12.0)]
    assert falling[0] == falling[1] == 1.0
    assert falling == sorted(falling, reverse=True)
    assert falling[2] > falling[3] > falling[4] == 0.0


ALONE = {"nothing_else_on": True, "instrument": Instrument("m", kinds.MULTIMETER, proved=True, accuracy_percent=0.5)}
MOVED = (volts("L-N", 234.0, **ALONE), volts("L-PE", 230.0, **ALONE), volts("N-PE", 0.2, **ALONE))


def test_what_a_moving_supply_keeps_apart_is_told_by_the_first_reading_taken_again():
    point = continental()
    kit = [ALONE["instrument"]]
    asked = [t.measurement for t in interpret(point, MOVED, kit).next_tests]
    assert MOVED[0].measurement in asked
    again = [t.measurement for t in interpret(point, [*MOVED, replace(MOVED[0], id="again")], kit).next_tests]
    assert not {r.measurement for r in MOVED} & set(again), "and nothing is repeated twice"
    still = [replace(MOVED[0], value=230.4), *MOVED[1:]]
    assert MOVED[0].measurement not in [t.measurement for t in interpret(point, still, kit).next_tests]


@pytest.mark.parametrize("number", [1, 24, 31, 48, 55])
def test_what_part_of_a_load_leaves_lies_between_what_none_and_all_of_it_do(number):
    """A neutral's few volts may be turned over by a load: least on the way, and as much as ever on either side.

    A load behind a poor joint bends the way a little; of so few samples nearly none lies outside for it.
    """
    ensemble = Ensemble(points()[number], 64)
    between, mode = Measurement(VOLTAGE, Terminal.N, Terminal.PE), AS_FOUND._replace(taps=True, others=OFF)
    span, unloaded = ensemble.span(between), ensemble.solved(mode)
    layout, admittances = ensemble.installation.layout, ensemble.installation.admittances
    contacts = dict(zip(layout.live_wires, (*ensemble.point.lines, Terminal.N), strict=True))
    for pair in combinations(layout.live_wires, 2):
        most = admittances.most_along_the_run(ensemble.values, ensemble.blocks, pair, mode)
        ports = tap_port(str(contacts[pair[0]])), tap_port(str(contacts[pair[1]]))
        for share in (0.25, 0.5, 0.75):
            part = replace(unloaded, at=unloaded.at.carrying(Load(ports, share * most)))
            shown = VOLTAGE.shown(between, part, ensemble.point)
            outside = (shown < span.least - 0.3) | (shown > span.most + 0.3)
            assert outside.mean() < 0.005


def test_a_neutral_lent_to_another_circuit_shows_less_when_a_load_here_works_against_it():
    """A random survey was such: 4.2 V with nothing else on, 2.1 V as it was found."""
    point = points()[31]
    between = Measurement(VOLTAGE, Terminal.N, Terminal.PE, METER)
    found = Reading("as found", between, value=2.1), Reading("alone", replace(between, nothing_else_on=True), value=4.2)
    assert "borrowed-neutral" in standing(interpret(point, found))
