"""A detector walked along a cable: where the alarm ends, and that no silence clears anything."""

import pytest

from evenprobe.formats import FormatError, SurveyFile, parse
from evenprobe.interpretation import Verdict, interpret
from evenprobe.practices import BRITISH, NORTH_AMERICA
from evenprobe.quantities import Alarm, Kept, weigh
from evenprobe.quantities.sweep import Station, Sweep, says

QUIET = "Silence cannot confirm safe"


def sweep(pattern, step=4.0):
    """`sweep("111000")`: a station every few metres, sounding where there is a 1."""
    return Sweep(tuple(Station(step * n, sign == "1") for n, sign in enumerate(pattern)))


def survey(stations, **more):
    reading = {"id": "s", "quantity": "presence", "from": "L", "instrument": "d", "sweep": stations, **more}
    return {
        "format": "even-probe/survey",
        "version": 1,
        "practice": "north-america",
        "supply": {"system": "120"},
        "instruments": [{"id": "d", "kind": "non-contact", "proved": True, "battery": "ok"}],
        "points": [{"id": "p", "kind": "outlet", "terminals": ["L", "N", "PE", "CASE"], "readings": [reading]}],
    }


def stations(pattern):
    return [{"m": s.metres, "alarm": s.alarm} for s in sweep(pattern).stations]


@pytest.mark.parametrize(
    ("pattern", "says_so"),
    [
        ("111000", "ends between 8 and 12 m"),
        ("000111", "begins between 8 and 12 m"),
        ("1111", "all the way"),
        ("0000", QUIET),
        ("110100", "comes and goes, first between 4 and 8 m"),
    ],
)
def test_where_the_alarm_ends_along_a_cable(pattern, says_so):
    assert says_so in says(sweep(pattern), BRITISH, along_metal=False)


def test_along_metal_any_sound_is_an_alarm():
    assert "first at 8 m" in says(sweep("0010"), BRITISH, along_metal=True)
    assert QUIET in says(sweep("0000"), BRITISH, along_metal=True)


@pytest.mark.parametrize("pattern", ["111000", "1111", "0000", "0011"])
def test_no_walk_along_a_cable_changes_what_stands(pattern):
    checked = parse(SurveyFile, survey(stations(pattern)))
    entry = checked.points[0]
    found = interpret(checked.facts(entry), checked.readings(entry))
    assert found.verdict in (Verdict.UNTESTED, Verdict.UNCONFIRMED)
    assert all(o.standing for o in found.conditions)


def test_a_walk_along_a_casing_that_sounds_anywhere_is_danger():
    checked = parse(SurveyFile, survey(stations("0010"), **{"from": "CASE"}))
    entry = checked.points[0]
    reading = checked.readings(entry)[0]
    assert [type(w) for w in weigh(reading, checked.facts(entry))] == [Alarm]
    assert interpret(checked.facts(entry), [reading]).verdict is Verdict.DANGER


def test_silence_at_the_end_of_a_cable_only_ranks():
    checked = parse(SurveyFile, survey(stations("1100")))
    entry = checked.points[0]
    weighed = weigh(checked.readings(entry)[0], checked.facts(entry))
    assert isinstance(weighed[0], Kept)
    assert weighed[0].quiet_at == "L"


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"sweep": [{"m": 0, "alarm": True}]}, "sweep"),
        ({"sweep": [{"m": 4, "alarm": True}, {"m": 2, "alarm": False}]}, "sweep"),
        ({"value": True}, "value"),
        ({"quantity": "trip"}, "sweep"),
        ({"sweep": [{"m": 0, "alarm": "yes"}, {"m": 2, "alarm": False}]}, "sweep[0].alarm"),
    ],
)
def test_a_sweep_that_makes_no_sense_is_refused_with_where(changes, path):
    with pytest.raises(FormatError) as refused:
        parse(SurveyFile, survey(stations("10"), **changes))
    assert refused.value.problems[0][0] == f"points[0].readings[0].{path}"


def test_where_feet_are_usual_the_place_is_told_in_feet_with_metres_beside():
    assert "first at 26 ft (8 m)" in says(sweep("0010"), NORTH_AMERICA, along_metal=True)
