"""What a hidden fault shows a person who looks, against what the hunts make of it: one physics on both sides."""

import numpy as np
import pytest
from bench.hunting import random_run
from hypothesis import given, settings
from hypothesis import strategies as st

from evenprobe.hunting.chains import FEED, Element, Volts, hunt_chain
from evenprobe.hunting.evidence import Loop, Presence
from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.hidden import HiddenBoard, HiddenChain, HiddenOpen, HiddenShort
from evenprobe.hunting.opens import hunt_open, shows_live
from evenprobe.hunting.resistance import window_of
from evenprobe.hunting.run import BOARD, Place, Run
from evenprobe.hunting.shorts import hunt_short
from evenprobe.wiring import conductor_named

OHM_PER_M = conductor_named("2.5 mm2").ohm_per_m


def drawn(seed: int, *, branches: bool = False) -> tuple[Run, Place]:
    rng = np.random.default_rng(seed)
    run = random_run(rng, int(rng.integers(3, 14)), branches=branches)
    return run, run.places[rng.integers(len(run.places))]


@given(st.integers(0, 2**32 - 1))
@settings(max_examples=40, deadline=None)
def test_the_ohms_of_a_short_never_rule_out_where_it_is(seed):
    run, truth = drawn(seed)
    hidden = HiddenShort(run, truth, OHM_PER_M)
    for at, side in [(BOARD, "onward"), *((box.id, side) for box in run.boxes for side in ("feed", "onward"))]:
        ohm = hidden.ohm(at, side)
        shows = hidden.split(at).feed if side == "feed" else hidden.split(at).shows_onward()
        assert (ohm is not None) is bool(shows)
        if ohm is not None:
            window = window_of(run, Loop(at, ohm, 0.0), OHM_PER_M)
            assert window is not None
            near, far = window.span(truth)
            assert near <= window.farthest_m
            assert far >= window.nearest_m


@given(st.integers(0, 2**32 - 1))
@settings(max_examples=40, deadline=None)
def test_however_boxes_are_opened_the_truth_keeps_its_share_and_nothing_contradicts(seed):
    run, truth = drawn(seed, branches=True)
    hidden = HiddenShort(run, truth)
    order = np.random.default_rng(seed).permutation([box.id for box in run.boxes])
    seen = [hidden.split(BOARD), *(hidden.split(str(at)) for at in order[:4])]
    found = hunt_short(run, seen)
    assert found.contradiction is None
    assert truth in found.share


@given(st.integers(0, 2**32 - 1), st.sampled_from([120.0, 230.0]))
@settings(max_examples=40, deadline=None)
def test_volts_at_a_face_say_what_a_tester_says(seed, nominal):
    run, truth = drawn(seed)
    hidden = HiddenOpen(run, truth, nominal)
    for box in run.boxes:
        line_neutral, neutral_earth = (hidden.volts_between(box.id, ends) for ends in ("L-N", "N-PE"))
        assert shows_live(line_neutral, nominal) is hidden.presence(box.id).live
        assert hidden.volts_between(box.id, "L-PE") == nominal
        assert abs(line_neutral + neutral_earth - nominal) < 1
    live = [hidden.is_live(box.id) for box in run.boxes]
    assert live == sorted(live, reverse=True)


@given(st.integers(0, 2**32 - 1))
@settings(max_examples=40, deadline=None)
def test_presence_at_every_face_leaves_the_open_between_two_neighbours(seed):
    run, truth = drawn(seed)
    hidden = HiddenOpen(run, truth, 230.0)
    found = hunt_open(run, [Presence(box.id, hidden.is_live(box.id)) for box in run.boxes])
    dead = [box for box in run.boxes if not hidden.is_live(box.id)]
    if not dead:
        assert truth == Place(run.boxes[-1].id)
        return
    assert found.contradiction is None
    assert truth in found.share
    assert set(found.share) <= {Place(dead[0].after), Place(dead[0].id, stretch=True), Place(dead[0].id)}


@pytest.mark.parametrize("truth", ["fuse", "stop", "limit"])
def test_volts_are_whole_up_to_the_open_element_and_gone_behind(truth):
    names = ["fuse", "stop", "limit", "coil"]
    hidden = HiddenChain(names, truth, 24.0)
    shown = [hidden.volts_after(joint) for joint in (FEED, *names)]
    assert shown == sorted(shown, reverse=True)
    chain = [Element(name, "coil" if name == "coil" else "contact") for name in names]
    found = hunt_chain(chain, [Volts(name, hidden.volts_after(name)) for name in names[:3]], 24.0)
    assert (found.state, dict(found.share)) == (HuntState.FOUND, {truth: 1.0})


def test_an_outlet_is_live_while_its_way_is_on():
    hidden = HiddenBoard({"hall": "2"})
    assert [hidden.is_live("hall", on) for on in (["1"], ["2"], ["1", "2"], [])] == [False, True, True, False]
