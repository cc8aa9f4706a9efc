"""A quantity across visits: one value a day, its limit in the picture, what halved or doubled told apart."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.deadtests.history import Visit, history
from evenprobe.entries import parse
from evenprobe.formats import SurveyFile
from evenprobe.interpretation import interpret
from evenprobe.limits.dead_tests import insulation_rule
from evenprobe.supplies import SYSTEMS
from evenprobe.trends import Value, followed, of_insulation, series

START = datetime(2025, 11, 24, 9, tzinfo=UTC)


def values(numbers, days=30, **more):
    return [Value("k", "N to PE", "V", START + timedelta(days=days * i), n, **more) for i, n in enumerate(numbers)]


@given(st.lists(st.floats(0.01, 1000), min_size=2, max_size=8))
def test_everything_lies_inside_the_picture_in_order_of_time(numbers):
    [one] = series(values(numbers, high=5.0))
    places = [place for mark in one.marks for place in (mark.across, mark.up)]
    places += [up for _, up in (*one.limits, *one.ticks)]
    assert all(-1e-9 <= place <= 1 + 1e-9 for place in places)
    across = [mark.across for mark in one.marks]
    assert across == sorted(across)
    assert (across[0], across[-1]) == (0.0, 1.0)


@given(st.permutations(values([1.0, 2.0, 3.0, 4.0])))
def test_the_order_in_which_they_are_told_changes_nothing(told):
    assert series(told) == series(values([1.0, 2.0, 3.0, 4.0]))


def test_one_day_is_no_trend_and_the_last_of_a_day_counts():
    assert series(values([1.0, 2.0], days=0)) == []
    first, again, later = values([1.0, 9.0], days=0)[0], values([9.0, 2.0], days=0)[1], values([0, 3.0])[1]
    [one] = series([first, Value(**{**vars(again), "at": START + timedelta(hours=2)}), later])
    assert [mark.value for mark in one.marks] == [2.0, 3.0]


@pytest.mark.parametrize(
    ("worse", "numbers", "jumped"),
    [
        ("less", [100, 51, 25], [False, False, True]),
        ("less", [100, 201], [False, False]),
        ("more", [1.0, 1.9, 4.0], [False, False, True]),
        ("more", [4.0, 1.0], [False, False]),
        ("neither", [230, 100, 400], [False, False, False]),
    ],
)
def test_a_fall_by_half_or_a_rise_to_twice_is_told_where_it_is_worse(worse, numbers, jumped):
    [one] = series(values(numbers, worse=worse))
    assert [mark.jumped for mark in one.marks] == jumped


def test_what_is_followed_of_a_point_is_what_repeats_each_visit():
    """Not a reading under a known load, which depends on the load; its loop is, which does not."""

    def volts(name, pair, value, **more):
        return {"id": name, "quantity": "voltage", "from": pair[0], "to": pair[1], "value": value, "unit": "V", **more}

    readings = [
        volts("a", ("L", "N"), 119.8), volts("b", ("PE", "N"), 0.4), volts("c", ("L", "N"), 118.1, load_here_a=10),
        {"id": "d", "quantity": "trip", "test_ma": 6, "value": True, "ms": 18},
        {"id": "e", "quantity": "current", "from": "BOARD-L", "to": "BOARD-N", "value": 3.1, "unit": "mA"},
        volts("f", ("L", "N"), 12.0, mode="dc"),
    ]  # fmt: skip
    survey = parse(
        SurveyFile,
        {
            "format": "even-probe/survey", "version": 1, "practice": "north-america", "supply": {"system": "120"},
            "points": [{
                "id": "p", "kind": "outlet", "terminals": ["L", "N", "PE"], "readings": readings,
                "circuit": {"rating_a": 20, "conductor": "12 AWG", "length_m": 18, "residual_ma": 5},
            }],
        },
    )  # fmt: skip
    point = survey.single_point()
    facts, found = survey.facts(point), survey.readings(point)
    judged = interpret(facts, found).judgements
    at = {reading["id"]: START for reading in readings}
    told = {value.title: value for value in followed(facts, found, judged, at)}
    assert set(told) == {"H to N", "N to G", "Trip time at 6 mA", "Current that does not come back", "Loop H to N"}
    assert told["H to N"].value == 119.8
    assert (told["H to N"].low, told["H to N"].high) == (108.0, 126.0)
    assert told["Loop H to N"].value == pytest.approx(0.17, abs=0.03)
    assert told["Current that does not come back"].value == pytest.approx(3.1e-3)


def test_insulation_keeps_the_places_and_the_rule_of_its_own_picture():
    """What was only known to be more than the tester's range has not halved."""
    days = [START + timedelta(days=200 * n) for n in range(3)]
    seen = [Visit(days[0], 900.0), Visit(days[1], 200.0, beyond=True), Visit(days[2], 40.0)]
    drawn = history(seen, insulation_rule("ordinary", SYSTEMS["230"]))
    told = of_insulation("Insulation L to PE", drawn)
    assert [mark.jumped for mark in told.marks] == [False, False, True]
    assert [mark.up for mark in told.marks] == [mark.up for mark in drawn.marks]
    assert told.limits == ((drawn.limit_mohm, drawn.limit_up),)
    assert told.jumped
