"""Insulation: the right voltage, the right temperature, and last time."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.deadtests.insulation import as_measured_at, at_20_degrees, in_parallel
from evenprobe.limits.dead_tests import insulation_rule
from evenprobe.supplies import SYSTEMS
from tests.core.judging import ORDER, judged, result, shown

megohms = st.floats(0.01, 5000)
celsius = shown(-20, 60)
SOUND = {"system": "230", "test_v": 500, "temperature_c": 20, "loads": "disconnected"}


@given(megohms, celsius)
def test_the_correction_to_twenty_degrees_goes_back_the_same_way(mohm, at):
    assert as_measured_at(at_20_degrees(mohm, at), at) == pytest.approx(mohm)


def test_resistance_halves_for_every_ten_degrees():
    assert at_20_degrees(4.0, 10) == pytest.approx(2.0)
    assert at_20_degrees(4.0, 40) == pytest.approx(16.0)


@given(st.lists(megohms, min_size=1, max_size=12), st.randoms())
def test_circuits_in_parallel_come_in_any_order_and_read_less_than_any(mohms, shuffle):
    together = in_parallel(mohms)
    other = list(mohms)
    shuffle.shuffle(other)
    assert in_parallel(other) == pytest.approx(together)
    assert together <= min(mohms) * (1 + 1e-9)


@given(megohms, megohms, celsius, st.floats(0.05, 500) | st.none())
def test_a_lower_reading_is_never_better(one, other, at, previous):
    given_ = {**SOUND, "temperature_c": at, "previous_mohm_20c": previous}
    worse, better = (result("insulation", measured_mohm=m, **given_) for m in sorted((one, other)))
    assert ORDER.index(better) <= ORDER.index(worse)


@given(megohms, celsius, celsius)
def test_a_reading_taken_warmer_is_never_judged_worse_by_the_limit(mohm, one, other):
    cool, warm = (
        judged("insulation", **{**SOUND, "measured_mohm": mohm, "temperature_c": t}) for t in sorted((one, other))
    )
    assert cool["computed"]["mohm_20c"] <= warm["computed"]["mohm_20c"] * (1 + 1e-3)
    if cool["result"] != "fail":
        assert warm["result"] != "fail"


def test_a_cold_pass_may_be_a_warm_failure():
    found = judged("insulation", **{**SOUND, "measured_mohm": 1.5, "temperature_c": 8})
    assert found["computed"]["mohm_20c"] == pytest.approx(1.5 / 2**1.2, rel=1e-3)
    assert found["result"] == "fail"


def test_a_warm_reading_below_the_limit_is_noted_even_where_it_passes():
    found = judged("insulation", **{**SOUND, "measured_mohm": 0.8, "temperature_c": 40})
    assert found["result"] == "note"
    assert "it was warm" in found["text"]


def test_no_temperature_is_said_to_be_taken_as_twenty():
    assert "20 °C" in judged("insulation", **{**SOUND, "measured_mohm": 50, "temperature_c": None})["text"]


@pytest.mark.parametrize(
    ("circuit", "system", "volts", "least"),
    [
        ("ordinary", "120/240", 500, 1.0),
        ("ordinary", "230/400", 500, 1.0),
        ("ordinary", "480Y/277", 500, 1.0),
        ("selv", "230", 250, 0.5),
        ("surge-protected", "230", 250, 1.0),
        ("equipment-250", "120", 500, 25),
        ("equipment-600", "480Y/277", 1000, 100),
    ],
)
def test_the_circuit_says_the_voltage_and_the_least(circuit, system, volts, least):
    rule = insulation_rule(circuit, SYSTEMS[system])
    assert (rule.test_volts, rule.least_mohm) == (volts, least)
    right = {"system": system, "circuit": circuit, "temperature_c": 20, "measured_mohm": 3 * least}
    assert result("insulation", **right, test_v=volts) in ("pass", "note")
    for wrong in {250, 500, 1000} - {volts}:
        assert result("insulation", **right, test_v=wrong) == "invalid"


def test_what_has_its_own_rule_needs_no_supply():
    selv = {"circuit": "selv", "test_v": 250, "temperature_c": 20, "loads": "disconnected"}
    assert result("insulation", **selv, measured_mohm=9) == "pass"
    assert result("insulation", **selv, measured_mohm=9, over_range=False) == "pass"


def test_what_was_measured_otherwise_does_not_count_and_still_alarms():
    for wrong in ({"test_v": 250}, {"loads": "connected"}, {"test_v": None}):
        good = judged("insulation", **{**SOUND, **wrong, "measured_mohm": 200})
        bad = judged("insulation", **{**SOUND, **wrong, "measured_mohm": 0.05})
        assert good["result"] == bad["result"] == "invalid"
        assert "treat it as failing" in bad["text"]
        assert "treat it as failing" not in good["text"]


def test_the_limit_within_the_testers_error_is_borderline():
    assert result("insulation", **SOUND, measured_mohm=1.02) == "borderline"
    assert result("insulation", **SOUND, measured_mohm=1.02, accuracy_percent=0.1, accuracy_counts=0) == "note"


def test_halving_since_the_last_visit_is_noted_though_it_passes():
    found = judged("insulation", **SOUND, measured_mohm=48, previous_mohm_20c=120)
    assert (found["result"], found["computed"]["trend"]) == ("note", pytest.approx(0.4))
    assert result("insulation", **SOUND, measured_mohm=70, previous_mohm_20c=120) == "pass"


def test_below_two_megohms_is_worth_watching_on_building_wiring_only():
    assert result("insulation", **SOUND, measured_mohm=1.6) == "note"
    extra_low = {**SOUND, "circuit": "selv", "test_v": 250}
    assert result("insulation", **extra_low, measured_mohm=1.6) == "pass"


def test_more_than_the_range_is_as_good_as_the_range():
    assert result("insulation", **SOUND, over_range=True) == "pass"
    assert result("insulation", **SOUND, at_least_mohm=200) == "pass"
    assert result("insulation", **SOUND, at_least_mohm=0.5) == "borderline"
    assert judged("insulation", **SOUND, over_range=True)["computed"]["mohm_20c"] is None


def test_kilohms_written_as_megohms_are_asked_about():
    assert "kΩ" in judged("insulation", **SOUND, measured_mohm=48000, previous_mohm_20c=52)["question"]


def test_a_long_cable_holds_its_charge():
    short, long = (judged("insulation", **SOUND, measured_mohm=500, length_m=m)["computed"] for m in (10, 1000))
    for name in ("charge_s", "discharge_s", "holds_s"):
        assert long[name] == pytest.approx(100 * short[name], rel=2e-3)
    assert long["holds_s"] == pytest.approx(120e-9 * 500e6 * 2.996, rel=1e-3)


@pytest.mark.parametrize(
    ("r30", "r60", "r600", "expected"),
    [
        (90, 140, 320, "pass"),
        (100, 130, None, "note"),
        (100, 95, None, "fail"),
        (None, 100, 250, "pass"),
        (None, 100, 150, "fail"),
        (100, 150, 140, "fail"),
    ],
)
def test_ratios_tell_wet_from_dry(r30, r60, r600, expected):
    assert result("insulation-ratio", r30_mohm=r30, r60_mohm=r60, r600_mohm=r600) == expected


def test_polarisation_is_not_judged_where_there_is_hardly_any_leakage():
    found = judged("insulation-ratio", r60_mohm=6000, r600_mohm=6600)
    assert found["result"] == "note"
    assert found["computed"]["polarisation"] == pytest.approx(1.1)


CIRCUITS = [{"id": "a", "mohm_20c": 100}, {"id": "b", "mohm_20c": 3}, {"id": "c", "mohm_20c": 60}]


def test_together_they_read_lower_and_the_leakiest_is_split_off_first():
    found = judged("parallel", system="230", measured_mohm=0.7, circuits=CIRCUITS)
    assert found["computed"]["predicted_mohm"] == pytest.approx(1 / (1 / 100 + 1 / 3 + 1 / 60), rel=1e-3)
    assert (found["result"], found["computed"]["split_first"]) == ("note", "b")
    assert "fallen" in found["text"]
    assert result("parallel", system="230", measured_mohm=2.7, circuits=CIRCUITS) == "pass"


def test_the_one_nobody_measured_is_split_off_before_the_leakiest():
    circuits = [*CIRCUITS, {"id": "d"}]
    assert judged("parallel", system="230", measured_mohm=0.7, circuits=circuits)["computed"]["split_first"] == "d"
