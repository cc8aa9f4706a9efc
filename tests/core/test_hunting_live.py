"""Opens by presence, poor joints by drop, chains by volts, boards by switching patterns."""

import numpy as np
import pytest
from bench.hunting import random_run
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from evenprobe.hunting.between import Between
from evenprobe.hunting.board_map import Tapped, map_board
from evenprobe.hunting.chains import FEED, Element, Volts, hunt_chain
from evenprobe.hunting.evidence import Looked, Presence
from evenprobe.hunting.findings import HuntState, Task
from evenprobe.hunting.opens import hunt_open
from evenprobe.hunting.poor_joints import Drop, hunt_poor_joint
from evenprobe.hunting.run import BOARD, Box, Place, Run
from tests.core.test_hunting import even

R_PER_M = 0.00741
"""2.5 mm²."""


def halves_of(run: Run) -> list[tuple[str, Place, float]]:
    """Every place an open can be, as the box from which on it is dead, the place, and its weight."""
    found = []
    for box in run.boxes:
        found.append((box.id, Place(box.id, stretch=True), run.weight(Place(box.id, stretch=True))))
        found.append((box.id, Place(box.id), run.weight(Place(box.id)) / 2))
        ahead = run.after[box.id]
        found.append((ahead[0] if ahead else "", Place(box.id), run.weight(Place(box.id)) / 2))
    return found


@pytest.mark.parametrize("seed", range(5))
def test_following_what_is_said_finds_an_open_in_the_minutes_said(seed):
    run = random_run(np.random.default_rng([7, seed]), 6, branches=False)
    last = run.boxes[-1].id
    spent = weight = 0.0
    for dead_from, truth, w in halves_of(run):
        if not dead_from or w == 0:
            continue
        seen, here, minutes = [Presence(last, live=False)], BOARD, 0.0
        while (found := hunt_open(run, seen, here)).state is HuntState.HUNTING:
            at = found.next.at
            minutes += run.walk_minutes(here, at)
            if found.next.task is Task.PROBE:
                minutes += 2.0
                seen.append(Presence(at, live=dead_from not in run.path(at)))
            else:
                minutes += run.box[at].open_minutes
                seen.append(Looked(at, here=truth == Place(at)))
            here = at
        assert set(found.share) == {truth}
        spent, weight = spent + w * minutes, weight + w
    first = hunt_open(run, [Presence(last, live=False)])
    assert first.next.minutes == pytest.approx(spent / weight)


def test_on_a_tree_an_open_lies_before_all_that_is_dead():
    run = Run([Box("a", BOARD, 5.0), Box("b", "a", 5.0), Box("c", "a", 5.0), Box("d", "c", 5.0)])
    found = hunt_open(run, [Presence("d", live=False), Presence("b", live=True)])
    assert {place.box for place in found.share} == {"a", "c", "d"}
    both = hunt_open(run, [Presence("d", live=False), Presence("b", live=False)])
    assert {place.box for place in both.share} == {"a"}
    assert hunt_open(run, []).next.at in ("b", "d")


def test_live_beyond_dead_is_named_and_a_dead_board_is_no_hunt():
    found = hunt_open(even(4), [Presence("p2", live=False), Presence("p4", live=True)])
    assert (found.state, found.contradiction.between) == (HuntState.CONTRADICTORY, (0, 1))
    assert "device" in str(hunt_open(even(4), [Presence(BOARD, live=False)]).advice)


def test_an_opened_box_that_is_not_it_leaves_the_rest():
    seen = [Presence("p2", live=True), Presence("p3", live=False)]
    left = hunt_open(even(4), [*seen, Looked("p3", here=False)])
    assert set(left.share) == {Place("p2"), Place("p3", stretch=True)}
    told = hunt_open(even(4), [*seen, Looked("p3", here=False), Looked("p2", here=False)])
    assert (told.state, set(told.share)) == (HuntState.FOUND, {Place("p3", stretch=True)})


def test_only_two_neighbours_are_opened():
    run = even(3)
    assert not Between(run, "p1", ("p2",), True).to_measure
    assert list(Between(run, BOARD, ("p1", "p2", "p3"), True).to_measure) == ["p1", "p2"]


@given(joint=st.floats(0.5, 4.0), at=st.integers(1, 5), seed=st.integers(0, 2**32 - 1))
@settings(max_examples=60, deadline=None)
def test_a_poor_neutral_joint_is_followed_by_its_drop_to_where_it_is(joint, at, seed):
    rng = np.random.default_rng(seed)
    run, amperes, warm = even(5, 10.0), 10.0, rng.uniform(0.95, 1.15)

    def drop(name: str) -> Drop:
        number = int(name[1:])
        ohm = R_PER_M * 10.0 * number * warm + (joint if number >= at else 0.0)
        return Drop(name, {"N-PE": round(amperes * ohm, 1)}, amperes, "p5")

    seen, here = [drop("p5")], "p5"
    while (found := hunt_poor_joint(run, seen, here, ohm_per_m=R_PER_M)).next.task is Task.MEASURE:
        here = found.next.at
        seen.append(drop(here))
    assert Place(f"p{at}") in found.share
    assert len(found.share) <= 3
    low, high = found.joints[0].ohm
    assert low - 0.05 <= joint <= high + 0.05
    assert found.joints[0].conductor == "N"


def test_a_poor_line_joint_is_told_from_the_neutrals_and_the_cable():
    run = even(3, 10.0)
    board = Drop(BOARD, {"L-PE": 230.0, "N-PE": 0.0}, 10.0, "p3")
    far = Drop("p3", {"L-PE": 216.0, "N-PE": 2.2}, 10.0, "p3")
    assert [j.conductor for j in hunt_poor_joint(run, [board, far], ohm_per_m=R_PER_M).joints] == ["L"]
    sound = Drop("p3", {"L-PE": 227.8, "N-PE": 2.2}, 10.0, "p3")
    assert hunt_poor_joint(run, [board, sound], ohm_per_m=R_PER_M).state is HuntState.CLEAR


def test_the_far_end_is_measured_first_and_less_than_cable_is_named():
    run = even(3, 20.0)
    assert hunt_poor_joint(run, [], ohm_per_m=R_PER_M).next.at == "p3"
    found = hunt_poor_joint(run, [Drop("p3", {"N-PE": 0.2}, 10.0, "p3")], ohm_per_m=R_PER_M)
    assert found.state is HuntState.CONTRADICTORY


def test_volts_of_other_loads_are_not_compared():
    run = even(3, 10.0)
    board, far = Drop(BOARD, {"L-PE": 230.0}, 5.0, "p3"), Drop("p3", {"L-PE": 200.0}, 10.0, "p3")
    assert not hunt_poor_joint(run, [board, far], ohm_per_m=R_PER_M).joints


CHAIN = [Element("f", "fuse"), Element("stop"), Element("limit"), Element("ol"), Element("k1", "coil", rated_v=230.0)]


@pytest.mark.parametrize("culprit", range(4))
def test_a_chain_is_halved_to_its_open_element(culprit):
    seen, looks = [], 0
    while (found := hunt_chain(CHAIN, seen, 230.0)).state is HuntState.HUNTING:
        joint = [e.id for e in CHAIN].index(found.next_after)
        seen.append(Volts(found.next_after, 229.0 if joint < culprit else 0.3))
        looks += 1
    assert dict(found.share) == {CHAIN[culprit].id: 1.0}
    assert looks <= 3


@pytest.mark.parametrize(
    ("seen", "suspect", "said"),
    [
        ([Volts("ol", 229.0)], "k1", "return"),
        ([Volts("ol", 180.0), Volts("f", 182.0), Volts(FEED, 183.0)], FEED, "feeds"),
        ([Volts("stop", 229.0), Volts("limit", 221.0), Volts("ol", 221.0)], "limit", "bad contact"),
        ([Volts("stop", 229.0), Volts("limit", 0.0)], "limit", "Operate"),
    ],
    ids=["coil or return", "low supply", "bad contact", "open"],
)
def test_what_a_chain_comes_to(seen, suspect, said):
    found = hunt_chain(CHAIN, seen, 230.0)
    assert dict(found.share) == {suspect: 1.0}
    assert said in str(found.advice)


def test_a_coil_with_too_little_says_its_share():
    found = hunt_chain(CHAIN, [Volts(FEED, 228.0), Volts("ol", 226.0)], 230.0)
    assert found.coil_share_percent == pytest.approx(98.3, abs=0.1)
    low = hunt_chain([Element("stop"), Element("k1", "coil", rated_v=230.0)], [Volts("stop", 185.0)], 187.0)
    assert "supply is low" in str(low.advice)


def test_what_should_be_open_is_no_fault_and_volts_do_not_come_back():
    chain = [Element("start", closed=False), Element("k1", "coil", rated_v=230.0)]
    assert "as it should be" in str(hunt_chain(chain, [Volts(FEED, 230.0), Volts("start", 0.0)], 230.0).advice)
    back = hunt_chain(CHAIN, [Volts("stop", 0.0), Volts("limit", 229.0)], 230.0)
    assert (back.state, back.contradiction.between) == (HuntState.CONTRADICTORY, (0, 1))


def taps(board, fed_by, outlet="lamp"):
    """What an outlet shows that is fed by these ways."""
    return [Tapped(outlet, r + 1, any(way in on for way in fed_by)) for r, on in enumerate(board.rounds)]


WAYS = st.integers(1, 40).map(lambda n: [f"w{i}" for i in range(1, n + 1)])


@given(ways=WAYS, data=st.data())
def test_every_way_is_told_in_few_rounds_and_a_slip_never_names_another(ways, data):
    board = map_board(ways, ["lamp"], [])
    assert len(board.rounds) == int(np.ceil(np.log2(len(ways) + 1))) + 1
    way = data.draw(st.sampled_from(ways))
    told = taps(board, [way])
    assert map_board(ways, ["lamp"], told).found == {"lamp": [way]}
    slip = data.draw(st.integers(0, len(told) - 1))
    told[slip] = Tapped("lamp", slip + 1, not told[slip].live)
    slipped = map_board(ways, ["lamp"], told)
    assert not slipped.found
    assert set(slipped.odd) == {"lamp"}


@given(ways=WAYS, data=st.data())
def test_an_outlet_of_two_ways_is_told_unless_a_third_looks_the_same(ways, data):
    assume(len(ways) > 1)
    two = data.draw(st.lists(st.sampled_from(ways), min_size=2, max_size=2, unique=True))
    empty = map_board(ways, ["lamp"], [])
    told = taps(empty, two)
    board = map_board(ways, ["lamp"], told)
    alike = [way for way in ways if taps(empty, [way]) == told]
    assert board.found.get("lamp", []) == alike
    if not alike:
        assert all(way in str(board.odd["lamp"]) for way in two)


def test_ways_that_must_stay_as_they_are_are_told_by_staying():
    ways = ["1", "2", "3", "4"]
    board = map_board(ways, ["a", "b", "c"], [], fixed_on=["4"], fixed_off=["3"])
    assert all("4" in on and "3" not in on for on in board.rounds)
    seen = taps(board, ["4"], "a") + taps(board, ["3"], "b") + taps(board, ["2"], "c")
    assert map_board(ways, ["a", "b", "c"], seen, fixed_on=["4"], fixed_off=["3"]).found == {
        "a": ["4"], "b": ["3"], "c": ["2"],
    }  # fmt: skip


def test_a_board_half_mapped_says_what_is_next_and_two_answers_contradict():
    board = map_board(["1", "2"], ["a", "b"], [Tapped("a", 1, True)])
    assert (board.state, board.next_round, board.next_outlet) == (HuntState.HUNTING, 1, "b")
    twice = map_board(["1", "2"], ["a"], [Tapped("a", 1, True), Tapped("a", 1, False)])
    assert twice.contradiction.between == (0, 1)
    assert "no way" in str(map_board(["1"], ["a"], taps(map_board(["1"], ["a"], []), [], "a")).odd["a"])
