"""Two and three lines: what lost, exchanged and doubled lines look like, and what tells them apart."""

from dataclasses import replace

import pytest

from evenprobe.conditions import conditions_for
from evenprobe.interpretation import Verdict, ensemble_for
from evenprobe.quantities import SEQUENCE, TRIP, VOLTAGE, Measurement, Reading
from evenprobe.supplies import SYSTEMS, Earthing
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from tests.core.installations import outlet, read, several, standing, volts

RANGE = several("L1 L2 N PE")
DRYER = several("L1 L2 PE")
MILL = several("L1 L2 L3 N PE", "230/400", Earthing.TN_S)
PLUG = Instrument("plug", kinds.DIGITAL_PLUG_TESTER, proved=True, test_ma=30)


def all_of(**pairs: float) -> tuple[Reading, ...]:
    """`all_of(L1_N=120)`"""
    return tuple(volts(pair.replace("_", "-"), value) for pair, value in pairs.items())


SOUND_RANGE = all_of(L1_N=120.2, L2_N=119.8, L1_L2=240.1, L1_PE=120.3, L2_PE=119.9, N_PE=0.2)
SOUND_MILL = all_of(
    L1_N=231, L2_N=230, L3_N=229.6, L1_L2=399, L2_L3=398, L1_L3=398.8, L1_PE=231.1, L2_PE=230.2, L3_PE=229.7, N_PE=0.3
)


def sequence(forwards: bool) -> Reading:
    tester = Instrument("stepped", kinds.TWO_POLE, proved=True)
    return Reading("sequence", Measurement(SEQUENCE, None, None, tester), value=float(forwards))


def trip(tripped: bool, test_ma: float = 30) -> Reading:
    return Reading("trip", Measurement(TRIP, None, None, PLUG, test_ma=test_ma), tripped=tripped)


def test_six_sound_voltages_do_not_clear_a_false_earth_or_a_lost_source_neutral():
    result = read(RANGE, *SOUND_RANGE)
    assert result.verdict is Verdict.UNCONFIRMED
    assert {"correct", "earth-from-neutral", "high-resistance-earth", "neutral-open-at-source"} <= standing(result)
    assert not {"same-leg", "leg-open", "line-neutral-swapped", "two-legs-of-star", "no-supply"} & standing(result)


def test_nothing_between_two_sound_lines_is_both_on_one_leg_or_one_fed_back():
    result = read(RANGE, *all_of(L1_N=120.2, L2_N=120.1, L1_L2=0.2))
    assert result.verdict is Verdict.HAZARD
    assert {"same-leg", "leg-open"} <= standing(result)
    assert "correct" not in standing(result)


def test_a_load_tells_a_doubled_leg_from_one_that_is_fed_back():
    readings = all_of(L1_N=120.2, L2_N=120.1, L1_L2=0.2, L1_PE=120.3, L2_PE=120.1, N_PE=0.2)
    one = volts("L2-N", 119.3, id="second loaded", load_here_a=20)
    assert "leg-open" in standing(read(RANGE, *readings, one)), "the first may be the one that is lost"
    other = volts("L1-N", 119.4, id="first loaded", load_here_a=20)
    assert standing(read(RANGE, *readings, one, other)) == {"same-leg"}


def test_without_a_load_a_lost_leg_shows_next_to_nothing():
    result = read(RANGE, *all_of(L1_N=120.2, L2_N=0.3, L1_L2=120.0, L1_PE=120.3, L2_PE=0.3, N_PE=0.1))
    assert result.verdict is Verdict.DEFECT
    assert "leg-open" in standing(result)
    assert "same-leg" not in standing(result)


@pytest.mark.parametrize("fed_back", [38.0, 71.0, 96.0])
def test_through_a_two_line_load_a_lost_leg_lives_at_an_odd_voltage(fed_back):
    left = 120.2 - fed_back
    result = read(RANGE, *all_of(L1_N=120.2, L2_N=fed_back, L1_L2=left, L1_PE=120.3, L2_PE=fed_back, N_PE=0.1))
    assert result.verdict is Verdict.DEFECT
    assert "leg-open" in standing(result)


def test_both_legs_odd_with_their_sum_right_is_a_neutral_lost_at_the_source():
    result = read(RANGE, *all_of(L1_N=88, L2_N=152, L1_L2=240, L1_PE=88, L2_PE=152, N_PE=0.2))
    assert result.verdict is Verdict.DANGER
    assert "neutral-open-at-source" in standing(result)
    assert not {"correct", "open-neutral"} & standing(result)


def test_two_legs_of_a_star_are_a_note_and_clear_nothing_else():
    result = read(RANGE, *all_of(L1_N=120.2, L2_N=120.4, L1_L2=208.3))
    likelihood = {o.condition.id: o.likelihood for o in result.conditions if o.standing}
    assert likelihood["two-legs-of-star"] > 10 * likelihood["correct"], "which it is only with much on meanwhile"
    assert result.verdict is Verdict.UNCONFIRMED
    assert {"open-earth", "earth-from-neutral"} <= standing(result)


def test_a_line_where_the_neutral_belongs_puts_line_to_line_on_the_other():
    result = read(RANGE, *all_of(L1_N=120, L2_N=240, L1_L2=120, N_PE=120, L1_PE=0.2, L2_PE=120))
    assert result.verdict is Verdict.DANGER
    assert {"line-neutral-swapped", "neutral-and-line-swapped-at-board"} <= standing(result)


def test_no_condition_about_a_neutral_where_none_comes():
    about_it = {"open-neutral", "neutral-open-at-source", "earth-from-neutral", "wrong-system"}
    assert not about_it & {c.id for c in conditions_for(DRYER)}


def test_the_high_leg_on_an_ordinary_outlet_burns_what_is_plugged_in():
    point = outlet(system="240-high-leg")
    result = read(point, *all_of(L_N=208, L_PE=208.2, N_PE=0.2))
    assert result.verdict is Verdict.DANGER
    assert "high-leg-on-single-phase" in standing(result)


@pytest.mark.parametrize("recorded", ["120", "120/240"])
def test_a_high_leg_nobody_wrote_down_is_named(recorded):
    result = read(outlet(system=recorded), *all_of(L_N=207.5, L_PE=207.6, N_PE=0.2))
    assert result.verdict is Verdict.DANGER
    assert standing(result) <= {"high-leg-on-single-phase", "neutral-open-at-source"}
    assert result.conditions[0].condition.id == "high-leg-on-single-phase"


def test_a_high_leg_where_a_split_phase_was_recorded_is_named_with_its_line():
    result = read(several("L1 L2 N PE", "120/240"), *all_of(L1_N=120, L2_N=208, L1_L2=240, L1_PE=120, L2_PE=208))
    assert result.verdict is Verdict.DANGER
    assert [o.lines for o in result.conditions if o.condition.id == "high-leg-on-single-phase"] == [(("L2",),)]


def test_a_star_has_no_high_leg():
    readings = all_of(L1_N=120, L2_N=208, L1_L2=317)
    result = read(several("L1 L2 N PE", "120/240"), *readings)
    assert "high-leg-on-single-phase" not in standing(result)


def test_the_high_leg_belongs_on_the_second_of_three_lines():
    board = several("L1 L2 L3 N PE", "240-high-leg")
    sound = all_of(L1_N=120, L2_N=208, L3_N=120.2, L1_L2=240, L2_L3=240.3, L1_L3=240.1)
    assert "correct" in standing(read(board, *sound))
    moved = all_of(L1_N=208, L2_N=120, L3_N=120.2, L1_L2=240, L2_L3=240.1, L1_L3=240.3)
    result = read(board, *moved)
    assert "high-leg-on-single-phase" in standing(result)
    assert "correct" not in standing(result)


def test_a_high_leg_between_two_lines_alone_is_a_note():
    result = read(several("L1 L2 PE", "240-high-leg"), *all_of(L1_L2=240, L1_PE=120, L2_PE=208))
    assert "line-to-line-on-high-leg" in standing(result)
    assert "correct" not in standing(result)


def test_a_missing_phase_is_named():
    readings = all_of(L1_N=231, L2_N=230, L3_N=2, L1_L2=399, L2_L3=229, L1_L3=230, L3_PE=2, N_PE=0.2)
    result = read(MILL, *readings)
    assert result.verdict is Verdict.DEFECT
    assert "phase-missing" in standing(result)


def test_ten_sound_voltages_say_nothing_of_the_sequence_and_a_rotation_indicator_does():
    assert "phase-sequence-reversed" in standing(read(MILL, *SOUND_MILL))
    assert "phase-sequence-reversed" not in standing(read(MILL, *SOUND_MILL, sequence(True)))
    reversed_ = read(MILL, *SOUND_MILL, sequence(False))
    assert "phase-sequence-reversed" in standing(reversed_)
    assert "correct" not in standing(reversed_)


def test_a_trip_needs_a_real_earth_path_round_the_device():
    sound = all_of(L_N=119.8, L_PE=119.9, N_PE=0.1)
    assert "earth-from-neutral" in standing(read(outlet(), *sound))
    tripped = standing(read(outlet(), *sound, trip(True, 6)))
    assert "correct" in tripped
    assert not {"earth-from-neutral", "earth-from-neutral-swapped", "neutral-earth-swapped", "open-earth"} & tripped


def test_a_trip_through_a_rod_of_one_s_own_says_nothing_of_the_outlet_s_earth():
    to_reference = Measurement(TRIP, Terminal.L, Terminal.REF, PLUG, test_ma=6)
    seen = standing(read(outlet(), *all_of(L_N=119.8), Reading("trip", to_reference, tripped=True)))
    assert {"correct", "open-earth", "earth-from-neutral"} <= seen


def test_no_trip_says_nothing_where_no_device_is_recorded():
    sound = all_of(L_N=119.8, L_PE=119.9, N_PE=0.1)
    assert standing(read(outlet(), *sound, trip(False))) == standing(read(outlet(), *sound))


def test_no_trip_of_a_recorded_device_is_the_device_or_a_false_earth():
    sound = all_of(L_N=119.8, L_PE=119.9, N_PE=0.1)
    protected = replace(outlet(), circuit=replace(outlet().circuit, residual_ma=6))
    result = standing(read(protected, *sound, trip(False, 6)))
    assert "correct" not in result
    assert {"residual-device-fails", "earth-from-neutral"} <= result
    assert standing(read(protected, *sound, trip(False, 5))) == standing(read(protected, *sound))


def test_a_split_phase_leg_and_its_fellow_are_held_against_each_other():
    apart = read(RANGE, *all_of(L1_N=124, L2_N=116))
    (match,) = [j for j in apart.judgements if j.limit.id == "leg.match"]
    assert match.result == "fail"


def test_line_to_line_has_its_own_band():
    bands = {j.reading.split()[0]: j.limit.band for j in read(MILL, *SOUND_MILL).judgements}
    assert (bands["L1-N"].low, bands["L1-N"].high) == (207, 253)
    assert (bands["L1-L2"].low, bands["L1-L2"].high) == pytest.approx((358.5, 438.2), abs=0.1)


def test_lines_the_supply_does_not_have_are_named_and_nothing_is_cleared():
    result = read(replace(MILL, system=SYSTEMS["230"]), *SOUND_MILL)
    assert result.verdict is Verdict.UNTESTED
    assert "L1, L2, L3" in result.summary
    live = read(replace(MILL, system=SYSTEMS["230"]), volts("PE-REF", 180))
    assert live.verdict is Verdict.DANGER


@pytest.mark.parametrize("system", ["120/240", "208Y/120", "480Y/277", "240-high-leg", "230/400"])
def test_a_sound_point_shows_what_its_supply_is_called_by(system):
    """√3 of a star, twice of a split phase, √3/2 of a delta's side to its high leg."""
    names = " ".join(SYSTEMS[system].lines)
    point = several(f"{names} N PE", system)
    ensemble = ensemble_for(point, 64)
    correct = next(rows for c, rows in ensemble.blocks if c.id == "correct")
    for line, (to_neutral, _) in SYSTEMS[system].lines.items():
        shown = ensemble.predicted(Measurement(VOLTAGE, Terminal(line), Terminal.N))[correct]
        assert shown.mean() == pytest.approx(to_neutral, rel=0.1)
    for one, other in (("L1", "L2"), ("L2", "L3"), ("L1", "L3")):
        if {one, other} <= set(SYSTEMS[system].lines):
            shown = ensemble.predicted(Measurement(VOLTAGE, Terminal(one), Terminal(other)))[correct]
            assert shown.mean() == pytest.approx(SYSTEMS[system].volts_between(one, other), rel=0.1)
