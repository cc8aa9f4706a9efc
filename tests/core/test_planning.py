"""A visit planned: dead before live, board by board, as long as it took before, with what is fit for it."""

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.planning import WORKS, Earlier, PlannedCircuit, PlannedPoint, Work, bring, plan, tasks_of
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import kinds
from evenprobe.testers.fitness import Held
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Category, Leads, Place, Rating
from evenprobe.wiring import PointKind, Terminal

ONE_LINE = tuple(map(Terminal, ("L", "N", "PE")))
ON = date(2026, 11, 24)
III_690 = Rating(Category.III, 690)
METER = Held("m", kinds.MULTIMETER, III_690, "M2", battery="ok", leads=Leads(III_690, True), calibration_due=ON)
INSULATION = Held(
    "i", kinds.INSULATION_TESTER, III_690, "I3", battery="ok", leads=Leads(III_690, True), test_volts=(250, 500)
)


def point(name, room="", kind=PointKind.OUTLET):
    return PlannedPoint(name, name, kind, ONE_LINE, room)


def circuit(name, board="Mill board", points=None, **more):
    points = points or (point(f"{name} 1", "Hall"), point(f"{name} 2", "Hall"))
    return PlannedCircuit(name, name, board, SYSTEMS["230/400"], tuple(points), **more)


def steps(found):
    return [(str(step.work), step.circuit.name) for step in found.steps]


def test_a_board_is_done_dead_before_any_of_it_is_tested_live():
    found = plan([circuit("a"), circuit("b"), circuit("c", "Inverter")], [Work.DEAD_TESTS, Work.LIVE_TESTS])
    assert steps(found) == [
        ("isolate", "a"), ("dead-tests", "a"), ("isolate", "b"), ("dead-tests", "b"), ("live-tests", "a"),
        ("live-tests", "b"), ("isolate", "c"), ("dead-tests", "c"), ("live-tests", "c"),
    ]  # fmt: skip


def test_dead_tests_bring_the_isolation_they_need_and_live_tests_none():
    assert steps(plan([circuit("a")], [Work.DEAD_TESTS])) == [("isolate", "a"), ("dead-tests", "a")]
    assert steps(plan([circuit("a")], [Work.LIVE_TESTS])) == [("live-tests", "a")]


def test_live_tests_go_on_in_the_room_where_one_stands():
    circuits = [
        circuit("a", points=[point("a1", "Hall"), point("a2", "Loft")]),
        circuit("b", points=[point("b1", "Cellar")]),
        circuit("c", points=[point("c1", "Loft")]),
    ]
    found = plan(circuits, [Work.LIVE_TESTS])
    assert [step.circuit.name for step in found.steps] == ["a", "c", "b"]
    assert found.way == ("Mill board", "Hall", "Loft", "Mill board", "Loft", "Mill board", "Cellar")


def test_what_a_work_took_before_counts_more_than_the_house_table():
    earlier = {
        Work.ISOLATE: [Earlier(date(2025, 1, 2), 90.0), *(Earlier(date(2026, n, 2), 10.0 + n) for n in (3, 5, 9))]
    }
    [isolate, dead] = plan([circuit("a", earlier=earlier)], [Work.DEAD_TESTS]).steps
    assert (isolate.estimate.minutes, isolate.estimate.since) == (15.0, date(2026, 9, 2))
    assert dead.estimate.since is None


@given(st.integers(1, 12), st.integers(1, 12))
def test_more_points_never_take_less(some, more):
    fewer, many = sorted((some, more))
    minutes = [
        plan([circuit("a", points=[point(f"p{i}") for i in range(count)])], list(Work)).minutes
        for count in (fewer, many)
    ]
    assert minutes[0] <= minutes[1]


def test_who_goes_dark_is_warned_for_as_long_as_it_is_off():
    found = plan([circuit("a", points=[point("a1", "Hall"), point("a2")])], list(Work))
    [dark] = found.warn
    assert dark.places == ("Hall", "a2")
    off = sum(step.estimate.minutes for step in found.steps if WORKS[step.work].goes_dark)
    assert dark.minutes == pytest.approx(off)
    assert plan([circuit("a")], [Work.LIVE_TESTS]).warn == ()


def test_one_person_is_enough_where_nothing_live_is_opened_and_one_source_is_locked():
    alone = plan([circuit("a")], list(Work))
    assert not any(step.two_people for step in alone.steps)
    box = circuit("a", points=[point("terminal box", kind=PointKind.FIXED)], sources=("isolator", "control feed"))
    isolate, dead, live = plan([box], list(Work)).steps
    assert "isolator, control feed" in isolate.two_people
    assert dead.two_people == ""
    assert "second person" in live.two_people


def test_each_thing_a_tester_is_wanted_for_is_asked_once_and_on_the_day_of_the_visit():
    found = plan([circuit("a", residual_ma=30.0), circuit("b")], list(Work))
    tasks = tasks_of(found.steps, PRACTICES["continental"], ON)
    assert [task.purpose for task in tasks] == [
        Purpose.PROVE_DEAD, Purpose.CONTINUITY, Purpose.INSULATION, Purpose.LIVE_VOLTAGE, Purpose.RESIDUAL_CURRENT,
    ]  # fmt: skip
    assert {task.on for task in tasks} == {ON}
    assert tasks[-1].device_ma == 30.0
    assert [tasks[0].place, tasks[3].place] == [Place.INSTALLATION, Place.PLUGGED_IN]


def test_what_to_bring_names_the_best_first_and_says_why_the_others_do_not_do():
    tasks = tasks_of(plan([circuit("a")], [Work.DEAD_TESTS]).steps, PRACTICES["british"], date(2026, 12, 24))
    wanted = {one.task.purpose: one for one in bring(tasks, [METER, INSULATION])}
    assert [held.id for held in wanted[Purpose.INSULATION].fit] == ["i"]
    assert [held.id for held in wanted[Purpose.PROVE_DEAD].fit] == []
    said = {unfit.held.id: unfit.why for unfit in wanted[Purpose.CONTINUITY].unfit}
    assert any("calibration" in why for why in said["m"])
