"""The model forwards: what each condition shows."""

import numpy as np
import pytest

from evenprobe.conditions import conditions_for
from evenprobe.interpretation import ensemble_for, forecast
from evenprobe.supplies import Earthing
from evenprobe.wiring import Terminal
from tests.core.installations import continental, outlet


def spans(point, condition):
    answer = forecast(ensemble_for(point), condition)
    return {f"{p.from_}-{p.to}": p for p in answer.pairs}, answer.lamps


def test_a_floating_earth_sits_between_and_collapses_on_low_impedance():
    pairs, lamps = spans(outlet(), "open-earth")
    assert 5 < pairs["L-PE"].high_z[0] < 60 < pairs["L-PE"].high_z[1] < 115
    assert pairs["L-PE"].low_z[1] < 5
    assert lamps == {"L-N": True, "L-PE": False, "N-PE": False}


def test_the_deadly_outlet_shows_a_healthy_lamp_pattern_with_all_metal_at_line_voltage():
    pairs, lamps = spans(outlet(), "earth-from-neutral-swapped")
    healthy, pattern = spans(outlet(), "correct")
    assert lamps == pattern == {"L-N": True, "L-PE": True, "N-PE": False}
    assert pairs["PE-REF"].high_z[0] > 85
    assert healthy["PE-REF"].high_z[1] < 10


def test_two_lines_where_one_belongs_show_twice_the_voltage():
    pairs, _ = spans(outlet(system="120/240"), "wrong-system")
    assert pairs["L-N"].high_z == pytest.approx((200, 260), rel=0.15)


def test_an_unbonded_source_floats_to_about_half():
    pairs, _ = spans(outlet(system="standalone-120"), "source-not-bonded")
    middle = np.mean(pairs["L-PE"].high_z)
    assert 40 < middle < 80
    assert pairs["L-PE"].low_z[1] < 45


def test_either_way_round_is_healthy_on_an_unpolarised_plug():
    pairs, _ = spans(continental(), "correct")
    assert pairs["L-PE"].high_z[0] < 10
    assert pairs["L-PE"].high_z[1] > 200


def test_a_missing_bond_is_no_fault_where_nothing_is_meant_to_be_bonded():
    ids = {c.id for c in conditions_for(outlet(earthing=Earthing.IT))}
    assert "source-not-bonded" not in ids
    assert "open-earth" in ids


def test_every_condition_can_be_told_in_words_at_every_terminal():
    point = outlet()
    for condition in conditions_for(point):
        assert "{" not in condition.title_in(point.practice)
        assert set(spans(point, condition.id)[0]) == {"L-N", "L-PE", "N-PE", "L-REF", "N-REF", "PE-REF"}
        assert condition.remedy
        assert condition.cause


def test_the_casing_hangs_on_the_earth_contact():
    point = outlet()
    cased = type(point)(point.practice, point.system, point.earthing, point.kind, (*point.terminals, Terminal.CASE))
    pairs, _ = spans(cased, "live-casing")
    assert pairs["CASE-REF"].high_z[1] > 60
