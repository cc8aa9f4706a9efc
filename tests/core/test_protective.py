"""Residual-current devices by their trip, loads by their device, components by what is printed on them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.deadtests.checks import QUICK_CHECKS, advise
from evenprobe.deadtests.ranges import MANUAL_RANGES, over_range_means, range_for
from tests.core.judging import ORDER, judged, result, shown


def trip(test_ma, ms=None, kind="general", rated_ma=30, tripped=True):
    return judged("residual-current", type=kind, rated_ma=rated_ma, test_ma=test_ma, tripped=tripped, ms=ms)


@pytest.mark.parametrize(
    ("kind", "test_ma", "ms", "expected"),
    [
        ("general", 30, 250, "pass"),
        ("general", 30, 330, "fail"),
        ("general", 60, 140, "pass"),
        ("general", 60, 250, "fail"),
        ("general", 150, 35, "pass"),
        ("general", 150, 60, "fail"),
        ("S", 30, 250, "pass"),
        ("S", 30, 60, "fail"),
        ("S", 150, 100, "pass"),
        ("S", 150, 20, "fail"),
        ("class-a-people", 8, 3000, "pass"),
        ("class-a-people", 8, 4500, "fail"),
        ("class-a-people", 30, 400, "pass"),
    ],
)
def test_the_time_to_trip_depends_on_type_and_current(kind, test_ma, ms, expected):
    rated = 5 if kind == "class-a-people" else 30
    assert trip(test_ma, ms, kind, rated)["result"] == expected


def test_a_device_for_people_has_a_time_for_every_current():
    assert trip(6, 100, "class-a-people", 5)["computed"]["limit_ms"] == pytest.approx(5593, rel=2e-3)
    assert trip(20, 100, "class-a-people", 5)["computed"]["limit_ms"] == pytest.approx(1000)


def test_no_trip_where_there_must_be_one_fails():
    for test_ma in (30, 60, 150):
        assert trip(test_ma, tripped=False)["result"] == "fail"


def test_half_the_current_must_not_trip_it():
    assert trip(15, tripped=False)["result"] == "pass"
    assert trip(15, 200)["result"] == "fail"
    assert trip(4, tripped=False, kind="class-a-people", rated_ma=5)["result"] == "pass"
    assert trip(4, 900, kind="class-a-people", rated_ma=5)["result"] == "fail"


def test_a_button_made_for_five_milliamperes_says_nothing_of_thirty():
    assert trip(5, tripped=False)["result"] == "invalid"
    assert trip(20, tripped=False)["result"] == "invalid"
    assert trip(20, 100)["result"] == "invalid"
    assert trip(5, tripped=False, kind="class-a-people", rated_ma=5)["result"] == "invalid"


def test_a_trip_without_a_time_is_noted():
    assert trip(30)["result"] == "note"


@given(shown(0, 1000), shown(0, 1000), st.sampled_from([30, 60, 150]))
def test_a_slower_trip_is_never_better(one, other, test_ma):
    faster, slower = (trip(test_ma, ms)["result"] for ms in sorted((one, other)))
    assert ORDER.index(faster) <= ORDER.index(slower)


def test_a_continuous_load_has_less_of_its_breaker_in_north_america():
    for_long = {"rating_a": 20, "running_a": 17, "continuous": True}
    assert result("load", practice="north-america", **for_long) == "fail"
    assert result("load", practice="continental", **for_long) == "pass"
    assert judged("load", practice="north-america", **for_long)["limit"]["source"] == "NEC 210.20"


@pytest.mark.parametrize(("curve", "expected"), [("B", "fail"), ("C", "pass"), ("D", "pass"), (None, "note")])
def test_a_start_up_current_stays_under_what_trips_at_once(curve, expected):
    found = judged("load", rating_a=16, running_a=9.5, start_a=60, curve=curve)
    assert found["result"] == expected
    assert found["computed"] == {"share_percent": pytest.approx(59.38), "start_multiple": pytest.approx(3.75)}


def test_frequency_is_judged_by_the_supply():
    assert result("frequency", system="230", hz=49.97) == "pass"
    assert result("frequency", system="230", hz=51.5) == "fail"
    assert result("frequency", system="standalone-230", hz=51.5) == "pass"
    assert result("frequency", system="230", hz=50.5) == "borderline"


def test_a_capacitor_within_what_is_printed():
    assert result("capacitor", printed_uf=40, tolerance_percent=5, measured_uf=39) == "pass"
    assert judged("capacitor", printed_uf=40, tolerance_percent=5, measured_uf=36.9)["computed"] == {
        "deviation_percent": pytest.approx(-7.75)
    }
    assert result("capacitor", printed_uf=40, measured_uf=37.9) == "borderline"
    assert result("capacitor", printed_uf=40, over_range=True) == "fail"
    assert "nF" in judged("capacitor", printed_uf=0.47, measured_uf=468)["question"]


@pytest.mark.parametrize(
    ("chemistry", "volts", "expected"),
    [
        ("lead-acid-12", 12.7, "pass"),
        ("lead-acid-12", 12.4, "note"),
        ("lead-acid-12", 12.1, "note"),
        ("lead-acid-12", 11.6, "fail"),
        ("alkaline-1.5", 1.55, "pass"),
        ("alkaline-1.5", 1.3, "note"),
        ("alkaline-1.5", 1.1, "fail"),
    ],
)
def test_a_battery_at_rest(chemistry, volts, expected):
    assert result("battery", chemistry=chemistry, volts=volts) == expected


def test_a_minus_sign_is_the_leads_the_other_way_round():
    found = judged("battery", chemistry="lead-acid-12", volts=-12.7)
    assert (found["result"], found["computed"]["volts"]) == ("note", 12.7)
    assert "minus" in found["text"]
    assert result("battery", chemistry="lead-acid-12", volts=-11.0) == "fail"


def test_millivolts_written_as_volts_are_asked_about():
    assert "12650 mV" in judged("battery", chemistry="lead-acid-12", volts=12650)["question"]


def test_a_sensor_takes_two_temperatures():
    assert result("temperature-sensor", pairs=[[25, 25.4], [55, 54.9]], tolerance_c=1) == "pass"
    assert result("temperature-sensor", pairs=[[25, 25.4], [55, 57.0]]) == "fail"
    assert result("temperature-sensor", pairs=[[25, 25.4]]) == "note"
    assert result("temperature-sensor", pairs=[[25, 25.4], [25, 25.3]]) == "note"


def test_a_coil_pulls_in_and_lets_go():
    assert judged("coil", rated_v=230, measured_v=180)["computed"]["share_percent"] == pytest.approx(78.26)
    assert result("coil", rated_v=230, measured_v=180) == "fail"
    assert result("coil", rated_v=230, measured_v=226) == "pass"
    assert result("coil", rated_v=230, measured_v=270) == "note"
    assert result("coil", rated_v=230, measured_v=60, energised=False) == "fail"
    assert result("coil", rated_v=230, measured_v=3, energised=False) == "pass"
    assert result("coil", rated_v=230, over_range=True) == "fail"


def test_what_heats_has_its_volts_squared_over_its_watts():
    heater = {"rated_v": 230, "rated_w": 2000}
    assert result("element", **heater, measured_ohm=25.9) == "pass"
    assert result("element", **heater, measured_ohm=60) == "note"
    assert result("element", **heater, measured_ohm=1.5) == "fail"
    assert result("element", **heater, over_range=True) == "fail"
    assert result("element", what="filament", rated_v=120, rated_w=60, measured_ohm=21) == "pass"


@given(st.floats(1e-3, 1e9), st.sampled_from(sorted(MANUAL_RANGES)))
def test_the_range_is_the_smallest_above_what_is_expected(expected, unit):
    scales = MANUAL_RANGES[unit]
    top = range_for(expected, scales)
    assert top > expected or top == scales[-1]
    assert all(smaller <= expected for smaller in scales if smaller < top)


def test_unsure_means_the_largest_range():
    assert range_for(None, (2, 20, 200)) == 200
    assert "highest" in over_range_means(200, "V DC", 200)
    assert "20 kΩ" in over_range_means(20e3, "ohm", 20e6)


def test_every_quick_check_says_what_to_set_and_what_to_expect():
    for check in QUICK_CHECKS.values():
        unknown = advise(check, {})
        assert unknown.range_top in MANUAL_RANGES[check.setting.unit]
        assert check.first.endswith(".")
        assert check.expect.endswith((".", "figure."))
    heater = advise(QUICK_CHECKS["element"], {"rated_v": 230, "rated_w": 2000})
    assert (heater.range_top, heater.expected) == (200, pytest.approx(26.45))


def panels(volts, **how):
    return judged("panel-string", panels=10, panel_v=40.0, volts=volts, **how)


def test_panels_in_series_add_up_and_the_sign_decides():
    assert panels(402.0)["result"] == "pass"
    assert panels(-402.0)["result"] == "fail"
    assert "the other way round" in panels(-402.0)["text"]
    assert panels(402.0)["computed"]["expected_v"] == 400.0


@pytest.mark.parametrize(("volts", "missing"), [(322.0, 2), (281.0, 3)])
def test_what_is_missing_from_a_string_is_counted_in_panels(volts, missing):
    found = panels(volts)
    assert found["result"] == "fail"
    assert f"About {missing} of them missing" in found["text"]


def test_millivolts_of_a_string_are_taken_for_volts_and_asked_about():
    assert "did you mean" in panels(0.4)["question"]
