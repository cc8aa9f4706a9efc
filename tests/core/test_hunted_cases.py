"""Hunts as cases: the planner finds whatever is hidden, displays agree with it, a debrief says what looks did."""

import json
from copy import deepcopy
from dataclasses import replace

import numpy as np
import pytest
from bench.hunting import random_run
from hypothesis import given, settings
from hypothesis import strategies as st

from evenprobe.entries import FormatError, parse
from evenprobe.formats import CaseFile
from evenprobe.formats.answers.debrief import DebriefOut
from evenprobe.formats.answers.practice import PracticeOut
from evenprobe.formats.case import shipped
from evenprobe.hunting.evidence import Presence
from evenprobe.hunting.findings import Task
from evenprobe.hunting.run import BOARD, Place
from evenprobe.hunting.tellable import tellable
from evenprobe.practising import (
    Act,
    AlongAHunt,
    Conclusion,
    Danger,
    Doing,
    Simulated,
    Told,
    debrief_hunt,
    hunt_hint,
    hunt_through,
    progress,
)  # fmt: skip
from evenprobe.practising.hunted import HuntedChain, HuntedOpen, HuntedShort
from evenprobe.testers import Instrument
from evenprobe.wiring import Terminal, conductor_named

SHIPPED = shipped()
LOOM, DEW, HALL = (SHIPPED[name].case() for name in ("loom-will-not-start", "dew-heaters-trip", "hall-dark-end"))
SEEDS = st.integers(0, 2**32 - 1)


def hidden_at_random(kind, seed):
    """A case along a random run without branches, with something hidden anywhere that shows in it."""
    rng = np.random.default_rng(seed)
    run = random_run(rng, int(rng.integers(3, 12)), branches=False)
    if kind == "chain":
        element = LOOM.hunted.elements[rng.integers(len(LOOM.hunted.elements))].id
        return replace(LOOM, hunted=HuntedChain(LOOM.hunted.elements, element, LOOM.hunted.supply_v))
    seen_behind = [place for place in run.places if kind == "short" or place != Place(run.boxes[-1].id)]
    place = seen_behind[rng.integers(len(seen_behind))]
    ohm_per_m = conductor_named("2.5 mm2").ohm_per_m
    if kind == "short":
        return replace(DEW, hunted=HuntedShort(run, place, 230.0, ohm_per_m))
    conductor = ("L", "N", "PE")[rng.integers(2)]
    return replace(HALL, hunted=HuntedOpen(run, place, 230.0, ohm_per_m, conductor))


def concluded(*places, at_s=1e6):
    return Act(Doing.CONCLUDED, at_s, conditions=frozenset(places))


def opened_all(case):
    return [Act(Doing.OPENED, 0.0, box=place) for place in case.hunted.places]


def as_told(case):
    """What the planner saw, as somebody would tell it."""
    return [Told(look.seen, look.at_s) for look in hunt_through(case).looks]


@pytest.mark.parametrize("kind", ["short", "open", "chain"])
@given(seed=SEEDS)
@settings(max_examples=25, deadline=None)
def test_the_planner_finds_whatever_is_hidden_and_never_strikes_it_out(kind, seed):
    case = hidden_at_random(kind, seed)
    through = hunt_through(case)
    assert through.solved
    assert case.hunted.truth not in {name for look in through.looks for name in look.struck_out}
    assert [look.at_s for look in through.looks] == sorted(look.at_s for look in through.looks)


@pytest.mark.parametrize("kind", ["short", "open", "chain"])
@given(seed=SEEDS)
@settings(max_examples=15, deadline=None)
def test_who_goes_the_planners_way_concludes_from_what_was_seen_and_before_it_guesses(kind, seed):
    case = hidden_at_random(kind, seed)
    told, truth = as_told(case), case.hunted.truth
    found = debrief_hunt(case, told, [*opened_all(case), concluded(truth)])
    assert found.conclusion is Conclusion.FOLLOWED
    assert found.is_mastered
    assert found.is_economical
    assert found.certain_after == len(told)
    assert found.seconds == pytest.approx(found.planner.seconds)
    assert not any(look.is_slip for look in found.taken)
    assert debrief_hunt(case, told[:-1], [concluded(truth)]).conclusion is Conclusion.GUESSED
    everything = debrief_hunt(case, told[:-1], [concluded(*case.hunted.suspects)])
    assert everything.conclusion is Conclusion.LEFT_OPEN
    other = next(name for name in case.hunted.suspects if name != truth)
    assert debrief_hunt(case, told, [concluded(other)]).conclusion is Conclusion.WRONG


@pytest.mark.parametrize("kind", ["short", "open"])
@given(seed=SEEDS)
@settings(max_examples=25, deadline=None)
def test_of_what_can_be_told_of_a_place_one_thing_is_so(kind, seed):
    hunted = hidden_at_random(kind, seed).hunted
    for at in hunted.places:
        told = tellable(kind, hunted.run, at)
        for task in {each.task for each in told}:
            so = [each for each in told if each.task is task and hunted.instead(each.seen) is None]
            assert len(so) == 1, (at, task)


@given(seed=SEEDS)
@settings(max_examples=25, deadline=None)
def test_the_display_shows_ohms_on_the_side_that_the_joint_is_on(seed):
    case = hidden_at_random("short", seed)
    meter = Simulated(case)
    for box in case.hunted.run.boxes:
        for side in ("feed", "onward"):
            probes = AlongAHunt(box.id, (Terminal.L, Terminal.PE), side, ohms=True)
            shown, true = meter.along(probes, DEW.kit[0], device="open"), case.hunted.ohm(box.id, side, "L-PE")
            assert shown.over_range is (true is None)
            if true is not None:
                assert shown.value == pytest.approx(true, abs=0.5 + 0.02 * true)


def test_a_tester_that_is_not_proved_and_a_device_that_is_off_show_nothing():
    meter, old = Simulated(HALL), Instrument("old", HALL.kit[0].kind, proved=False)
    proved = replace(old, proved=True)
    face = AlongAHunt("door socket", (Terminal.L, Terminal.N))
    assert meter.along(face, proved, device="closed").value > 200
    assert meter.along(face, old, device="closed").value < 1
    assert meter.along(face, proved, device="open").value < 1


@pytest.mark.parametrize(("conductor", "pairs"), [("L", ()), ("N", ("L-PE", "N-PE")), ("PE", ("L-N",))])
def test_behind_an_open_conductor_stands_what_its_kind_leaves(conductor, pairs):
    hunted = HuntedOpen(HALL.hunted.run, HALL.hunted.place, 230.0, conductor=conductor)
    behind = {pair: hunted.volts("stage right socket", pair) > 200 for pair in ("L-N", "L-PE", "N-PE")}
    assert {pair for pair, live in behind.items() if live} == set(pairs)
    before = {pair: hunted.volts("door socket", pair) > 200 for pair in behind}
    assert before == {"L-N": True, "L-PE": True, "N-PE": False}


def test_ohms_on_a_live_run_end_the_tester():
    ohms = AlongAHunt("door socket", (Terminal.N, Terminal.L), ohms=True)
    assert Simulated(HALL).blows_along(ohms, device="closed")
    assert not Simulated(HALL).blows_along(ohms, device="open")
    assert not Simulated(DEW).blows_along(replace(ohms, at=BOARD), device="closed")
    with pytest.raises(ValueError, match="nothing is hunted"):
        Simulated(SHIPPED["cold-kettle"].case()).along(ohms, HALL.kit[0], device="open")


def test_a_device_closed_onto_a_fault_is_open_as_before():
    found = progress(
        [Act(Doing.OFF, 0.0), Act(Doing.ON, 5.0, danger=Danger.ONTO_FAULT), Act(Doing.OPENED, 9.0, box="b")]
    )
    assert (found.device, found.is_over, found.opened) == ("open", False, {"b"})
    assert [met.danger for met in found.met] == [Danger.ONTO_FAULT]


def test_what_was_told_otherwise_and_a_better_look_are_said():
    first = Told(Presence("kitchen hatch socket", live=False), 60.0, "two-pole")
    wrong = Told(Presence("window socket", live=False), 90.0)
    found = DebriefOut.of(debrief_hunt(HALL, [first, wrong], [concluded("door socket")]), "", 0, {"two-pole": "pole"})
    one, other = found.taken
    assert (one.what, one.recorded, one.with_) == ("At kitchen hatch socket", "dead", "pole")
    assert one.better == "measure at piano socket"
    assert one.better_rules_out > len(one.struck_out)
    assert other.slip == "it was live"
    assert found.slips == 1
    assert found.said == "The fault is here: piano socket. Nothing you saw rules that out."


def test_the_hints_of_a_hunt_say_what_is_left():
    seen = [each.seen for each in as_told(LOOM)]

    def said(n, level):
        return hunt_hint(LOOM.hunted, seen[:n], level, lambda ahead: f"{ahead.task} {ahead.at}")

    assert said(0, 0).startswith("It can still be in 7 places")
    assert said(1, 1) == f"The look that decides most: {Task.MEASURE} start button."
    assert said(1, 2).startswith("Why: ")
    assert all(said(3, level).startswith("Only one place is left: Overload contact") for level in range(3))


def test_the_planners_way_of_a_hunt_is_printed():
    answer = PracticeOut.of(hunt_through(DEW), "it trips")
    assert answer.sound
    assert answer.hidden == "The cable to heater box 4"
    assert answer.stands == ["The cable to heater box 4"]
    assert [turn.what for turn in answer.turns][:2] == ["At the panel", "Opened heater box 3"]
    assert isinstance(LOOM.hunted, HuntedChain)


def spoilt(name, **changed):
    content = json.loads(SHIPPED[name].model_dump_json(by_alias=True, exclude_none=True))
    for path, value in changed.items():
        *parents, last = path.split("__")
        at = content
        for key in parents:
            at = at[key]
        at[last] = value
    return content


CALLED_AS_A_CABLE = deepcopy(SHIPPED["dew-heaters-trip"].circuit["points"])
CALLED_AS_A_CABLE[-1]["id"] = f"to {CALLED_AS_A_CABLE[0]['id']}"
BRANCHED = deepcopy(SHIPPED["dew-heaters-trip"].circuit["points"])
BRANCHED[2]["after"] = BRANCHED[0]["id"]


@pytest.mark.parametrize(
    ("name", "changed", "path"),
    [
        ("loom-will-not-start", {"hidden__at": "gremlin"}, "hidden.at"),
        ("loom-will-not-start", {"hidden__in_the_cable": True}, "hidden.in_the_cable"),
        ("loom-will-not-start", {"hidden": {"condition": "correct", "seed": 1}}, "hidden.at"),
        ("loom-will-not-start", {"circuit__practice": "british"}, "circuit.practice"),
        ("loom-will-not-start", {"circuit__elements": []}, "circuit.elements"),
        ("loom-will-not-start", {"circuit__seen": [{"after": "feed", "volts": 1.0}]}, "circuit.seen"),
        ("loom-will-not-start", {"solved": {"dead": True}}, "circuit"),
        ("loom-will-not-start", {"solved": {"dead": True, "found": True}}, "solved.among"),
        ("dew-heaters-trip", {"circuit__hunt": "map"}, "circuit.ways"),
        ("dew-heaters-trip", {"circuit__hunt": "poor-joint"}, "circuit.hunt"),
        ("dew-heaters-trip", {"circuit__points": BRANCHED}, "circuit.points"),
        ("dew-heaters-trip", {"circuit__points": CALLED_AS_A_CABLE}, "circuit.points"),
        ("hall-dark-end", {"hidden__conductor": "X"}, "hidden.conductor"),
        ("cold-kettle", {"solved": {"found": True}}, "circuit"),
    ],
)
def test_whatever_is_wrong_with_a_hunt_in_a_case_is_named(name, changed, path):
    with pytest.raises(FormatError) as refused:
        parse(CaseFile, spoilt(name, **changed))
    assert any(problem[0].startswith(path) for problem in refused.value.problems), refused.value.problems
