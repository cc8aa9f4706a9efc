"""Halving: shares, plans against brute force over all of them, trees, resistance, contradictions, energising."""

import json

import numpy as np
import pytest
from bench.hunting import random_run
from hypothesis import given, settings
from hypothesis import strategies as st

import evenprobe
from evenprobe.hunting.evidence import Loop, Split
from evenprobe.hunting.findings import HuntState, Task
from evenprobe.hunting.hidden import HiddenShort
from evenprobe.hunting.left import Left, Region
from evenprobe.hunting.plan import TREE_UP_TO, Halves, plan
from evenprobe.hunting.run import BOARD, Box, Place, Run, RunError
from evenprobe.hunting.shorts import hunt_short
from evenprobe.hunting.tree import Tree

AT_BOARD = Split(BOARD, onward=True)


def even(boxes: int, metres: float = 8.0) -> Run:
    return Run(Box(f"p{i}", f"p{i - 1}" if i > 1 else BOARD, metres) for i in range(1, boxes + 1))


def whole(run: Run) -> Left:
    return Left(run, {place: run.weight(place) for place in run.places})


def least_of_all_plans(left: Left, region: Region, here: str, known: dict) -> float:
    """Weighted minutes, by trying every order of every box."""
    if left.is_told(region):
        return 0.0
    if (region, here) not in known:
        known[region, here] = min(
            left.share(region) * left.minutes(here, name)
            + sum(least_of_all_plans(left, group.region, name, known) for group in left.groups(name, region))
            for name in left.stops_of(region)
        )
    return known[region, here]


@pytest.mark.parametrize("branches", [False, True], ids=["line", "tree"])
@given(seed=st.integers(0, 2**32 - 1))
@settings(max_examples=40, deadline=None)
def test_no_plan_takes_fewer_minutes(branches, seed):
    rng = np.random.default_rng(seed)
    run = random_run(rng, int(rng.integers(2, 8)), branches=branches)
    left = Left(run, {p: run.weight(p) * (rng.random() > 0.15) for p in run.places})
    here = str(rng.choice([BOARD, *run.box]))
    found = plan(left, here)
    if found is None:
        assert sum(w > 0 for w in left.weight.values()) < 2
        return
    least = least_of_all_plans(left, left.region, here, {}) / left.share(left.region)
    assert found.exact
    assert found.minutes == pytest.approx(least)
    assert least <= left.in_order(here) + 1e-9


@given(seed=st.integers(0, 2**32 - 1))
@settings(max_examples=15, deadline=None)
def test_a_run_is_a_tree_without_branches(seed):
    rng = np.random.default_rng(seed)
    left = whole(random_run(rng, int(rng.integers(3, 12)), branches=False))
    assert Tree(left).first(BOARD)[1] == pytest.approx(plan(left, BOARD).minutes)


@pytest.mark.parametrize("seed", range(6))
def test_following_what_is_said_finds_it_in_the_minutes_said(seed):
    """The plan's expectation is the mean over every place the fault can be, each played out to the end."""
    rng = np.random.default_rng([4, seed])
    run = random_run(rng, 7, branches=seed % 2 == 1)
    spent = 0.0
    weights = {place: run.weight(place) for place in run.places if run.weight(place) > 0}
    for truth, weight in weights.items():
        seen, here, minutes = [AT_BOARD], BOARD, 0.0
        while (found := hunt_short(run, seen, here)).state is HuntState.HUNTING:
            assert found.next.task is Task.OPEN
            at = found.next.at
            minutes += run.walk_minutes(here, at) + run.box[at].open_minutes
            seen, here = [*seen, taken_apart(run, at, truth)], at
        assert set(found.share) == {truth}
        spent += weight * minutes
    first = hunt_short(run, [AT_BOARD], BOARD)
    assert first.next.minutes == pytest.approx(spent / sum(weights.values()))


def taken_apart(run: Run, at: str, truth: Place) -> Split:
    """What shows at an opened box where the fault is really there."""
    return HiddenShort(run, truth).split(at)


@pytest.mark.parametrize(("boxes", "least"), [(12, 1.6), (30, 2.3), (60, 3.0)])
def test_going_by_the_plan_beats_going_in_order(boxes, least):
    found = hunt_short(even(boxes), [AT_BOARD])
    assert found.exact
    assert found.in_order_minutes / found.next.minutes > least


def test_more_boxes_than_are_reckoned_are_halved_and_said_so():
    found = hunt_short(random_run(np.random.default_rng(5), TREE_UP_TO + 14, branches=True), [AT_BOARD])
    assert not found.exact
    assert found.next.minutes < found.in_order_minutes


def test_twice_the_boxes_take_less_than_twice_the_minutes_and_are_still_reckoned_whole():
    once, twice = (hunt_short(even(boxes), [AT_BOARD]) for boxes in (60, 120))
    assert once.exact
    assert twice.exact
    assert once.next.minutes < twice.next.minutes < 2 * once.next.minutes


def test_halving_a_tree_is_near_the_least():
    rng = np.random.default_rng(8)
    ratios = []
    for _ in range(25):
        left = whole(random_run(rng, 12, branches=True))
        ratios.append(left.expected(BOARD, Halves(left).best) / plan(left, BOARD).minutes)
    assert np.mean(ratios) < 1.02
    assert min(ratios) > 1 - 1e-9


def test_a_star_of_sixteen_is_reckoned_whole():
    run = Run([Box("p1", BOARD, 5.0), *(Box(f"p{i}", "p1", 5.0 + i) for i in range(2, 17))])
    found = hunt_short(run, [AT_BOARD])
    assert (found.exact, found.next.at) == (True, "p1")


@given(seed=st.integers(0, 2**32 - 1))
@settings(max_examples=30, deadline=None)
def test_shares_sum_to_one_and_the_truth_keeps_one(seed):
    rng = np.random.default_rng(seed)
    run = random_run(rng, int(rng.integers(2, 20)), branches=bool(rng.integers(2)))
    truth = run.places[rng.integers(len(run.places))]
    seen = [AT_BOARD, *(taken_apart(run, str(name), truth) for name in rng.permutation(list(run.box))[:3])]
    found = hunt_short(run, seen)
    assert sum(found.share.values()) == pytest.approx(1.0)
    assert truth in found.share or run.weight(truth) == 0
    if found.energise_up_to is not None:
        assert truth.box in run.beyond(found.energise_up_to)


def test_more_suspicion_is_more_share_and_a_renewed_box_less():
    def share(suspicion: float) -> float:
        run = Run([Box("p1", BOARD, 5.0, suspicion), Box("p2", "p1", 5.0)])
        return hunt_short(run, [AT_BOARD]).share[Place("p1")]

    assert share(0.3) < share(1.0) < share(3.0) < share(6.0)


def test_the_board_is_measured_first_and_clear_there_is_nothing_to_hunt():
    assert hunt_short(even(4), []).next.at == BOARD
    assert hunt_short(even(4), [Split(BOARD, onward=False)]).state is HuntState.CLEAR


R_PER_M = 0.00829
"""14 AWG."""


@given(metres=st.floats(0.5, 39.5), joint=st.floats(0.0, 0.45), off=st.floats(-1, 1))
def test_ohms_never_rule_out_where_the_joint_is(metres, joint, off):
    run = even(5)
    true = 2 * R_PER_M * metres + joint
    shown = max(0.1, true * (1 + 0.02 * off)) + 0.1
    found = hunt_short(run, [AT_BOARD, Loop(BOARD, shown, 0.1)], ohm_per_m=R_PER_M)
    near, far = found.distance_m
    assert near - 0.3 <= metres <= far + 0.3


def test_a_resistance_from_the_far_end_says_how_far_from_there():
    run = even(5, 10.0)
    found = hunt_short(run, [Split("p5", feed=True), Loop("p5", 0.21, 0.0)], ohm_per_m=R_PER_M)
    assert found.distance_m[0] == pytest.approx(50 - 0.21 / (2 * R_PER_M), abs=1.5)
    assert Place("p1") not in found.share


def test_ohms_that_no_joint_makes_ask_for_the_load_and_rule_nothing_out():
    plain = hunt_short(even(4), [AT_BOARD])
    loaded = hunt_short(even(4), [AT_BOARD, Loop(BOARD, 26.0)], ohm_per_m=R_PER_M, volts=230.0)
    assert loaded.share == plain.share
    assert "2035 W" in str(loaded.advice)
    assert "insulation tester" in str(hunt_short(even(4), [AT_BOARD, Loop(BOARD, 8e3)], ohm_per_m=R_PER_M).advice)


@pytest.mark.parametrize(
    ("seen", "between"),
    [
        ([AT_BOARD, Split("p2", feed=False, onward=True), Split("p4", feed=False, onward=True),
          Split("p3", feed=True, onward=False)], (2, 3)),
        ([AT_BOARD, Split("p2", feed=True, onward=True)], (1, 1)),
        ([AT_BOARD, Split("p2", feed=True, onward=False), Split("p2", feed=False, onward=True)], (1, 2)),
        ([Split("p2", feed=True, onward=False), Split(BOARD, onward=False)], (0, 1)),
    ],
    ids=["apart", "both sides", "twice", "clear at the board"],
)  # fmt: skip
def test_what_cannot_both_be_is_named(seen, between):
    found = hunt_short(even(5), seen)
    assert found.state is HuntState.CONTRADICTORY
    assert found.contradiction.between == between
    assert found.next is None


@pytest.mark.parametrize(
    ("boxes", "index", "key"),
    [
        ([Box("a", "b", 1.0), Box("b", "a", 1.0)], 0, "after"),
        ([Box("a", "a", 1.0)], 0, "after"),
        ([Box("a", BOARD, 1.0), Box("b", "x", 1.0)], 1, "after"),
        ([Box("a", BOARD, 1.0), Box("b", BOARD, 1.0)], 1, "after"),
        ([Box("a", BOARD, 1.0), Box("a", "a", 1.0)], 1, "id"),
    ],
    ids=["loop", "after itself", "unknown", "two roots", "twice"],
)
def test_what_is_no_tree_is_refused(boxes, index, key):
    with pytest.raises(RunError) as refused:
        Run(boxes)
    assert (refused.value.index, refused.value.key) == (index, key)


HEAD = {"format": "even-probe/circuit", "version": 1, "practice": "british"}
POINTS = [{"id": "a", "after": "board", "length_m": 5}, {"id": "b", "after": "a", "length_m": 5}]


@pytest.mark.parametrize(
    ("file", "path"),
    [
        ({**HEAD}, "hunt: is missing"),
        ({**HEAD, "hunt": "ghost"}, "hunt: 'ghost'"),
        ({**HEAD, "hunt": "short", "points": []}, "points"),
        ({**HEAD, "hunt": "short", "points": [{**POINTS[0], "length_m": -1}]}, "points[0].length_m"),
        ({**HEAD, "hunt": "short", "points": [{**POINTS[0], "length_m": "5"}]}, "points[0].length_m"),
        ({**HEAD, "hunt": "short", "points": POINTS, "seen": [{"at": "c", "feed": True}]}, "seen[0].at"),
        ({**HEAD, "hunt": "short", "points": POINTS, "seen": [{"at": "a"}]}, "seen[0].onward"),
        ({**HEAD, "hunt": "short", "points": POINTS, "seen": [{"at": "a", "onward": {"c": True}}]}, "seen[0].onward"),
        ({**HEAD, "hunt": "short", "points": POINTS, "seen": [{"at": "board", "feed": True}]}, "seen[0].feed"),
        ({**HEAD, "hunt": "short", "points": POINTS, "seen": [{"at": "a", "live": True}]}, "seen[0].live"),
        ({**HEAD, "hunt": "short", "points": POINTS, "standing_at": "c"}, "standing_at"),
        ({**HEAD, "hunt": "short", "points": POINTS, "conductor": "8 horses"}, "conductor"),
        ({**HEAD, "hunt": "short", "points": POINTS, "between": ["L", "L"]}, "between"),
        ({**HEAD, "hunt": "short", "points": POINTS,
          "seen": [{"at": "board", "resistance_ohm": 0.1, "null_ohm": 0.2}]}, "seen[0].null_ohm"),
        ({**HEAD, "hunt": "open", "points": POINTS, "seen": [{"at": "a"}]}, "seen[0].live"),
        ({**HEAD, "hunt": "poor-joint", "points": POINTS}, "conductor"),
        ({**HEAD, "hunt": "poor-joint", "points": POINTS, "conductor": "2.5 mm2",
          "seen": [{"at": "a", "volts": {"L-N": 220}}]}, "seen[0].load_a"),
        ({**HEAD, "hunt": "chain", "supply_v": 230, "elements": [{"id": "a"}, {"id": "a"}]}, "elements[1].id"),
        ({**HEAD, "hunt": "chain", "supply_v": 230, "elements": [{"id": "a"}],
          "seen": [{"after": "b", "volts": 1}]}, "seen[0].after"),
        ({**HEAD, "hunt": "map", "ways": ["1", "1"], "outlets": []}, "ways[1]"),
        ({**HEAD, "hunt": "map", "ways": ["1"], "outlets": ["o"],
          "seen": [{"outlet": "o", "round": 9, "live": True}]}, "seen[0].round"),
        ({**HEAD, "hunt": "map", "ways": ["1"], "outlets": ["o"], "fixed_on": ["2"]}, "fixed_on[0]"),
    ],
)  # fmt: skip
def test_bad_input_is_named_with_its_path(file, path):
    with pytest.raises(evenprobe.FormatError) as refused:
        evenprobe.hunt(file)
    assert path in str(refused.value)


def test_an_answer_is_plain_data():
    answer = evenprobe.hunt({**HEAD, "hunt": "short", "points": POINTS, "seen": [{"at": "board", "onward": True}]})
    written = json.loads(json.dumps(answer.as_json()))
    assert written["suspects"][-1].keys() == {"stretch", "share"}
    assert written["next"]["do"] == "open"
    assert sum(chance["share"] for chance in written["next"]["outcomes"]) == pytest.approx(1.0, abs=0.002)
