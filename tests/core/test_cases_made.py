"""Cases that are made dead, cases made of real points, and what a dead test measures before anything is shown."""

import json
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evenprobe.deadtests.kinds import DEAD_TESTS, Figure
from evenprobe.deadtests.lines import lines_of
from evenprobe.deadtests.measured import measured_along
from evenprobe.deadtests.sheet import SheetCircuit, SheetPoint
from evenprobe.entries import FormatError, parse
from evenprobe.entries.units import to_si
from evenprobe.formats import InstrumentEntry, SurveyFile
from evenprobe.formats.case import shipped
from evenprobe.formats.case_of import case_of
from evenprobe.formats.shown import typed
from evenprobe.isolation import StepKind
from evenprobe.practices import PRACTICES
from evenprobe.practising import Act, Doing, as_planned, progress
from evenprobe.quantities import INSULATION, QUANTITIES, RESISTANCE, Measurement, Reading
from evenprobe.supplies import SYSTEMS
from evenprobe.wiring import Terminal

PUMP = shipped()["two-ways-in"].case()
AT_THE_BOARD = [Doing.OFF, Doing.ON, Doing.LOOKED, Doing.FEED_OFF, Doing.FEED_ON, Doing.LOCKED]


def kinds_of(made):
    return [done.step.kind for done in made.steps]


def test_what_still_feeds_it_is_met_at_a_pair_found_and_switched_off_before_anything_counts():
    made = as_planned(PUMP)
    steps = kinds_of(made)
    assert made.solved
    found = steps.index(StepKind.FIND_SOURCE)
    met = made.steps[found - 1]
    assert met.step.kind is StepKind.TEST
    assert met.shown.at_least >= 50, "it is found by a voltage, not by being told"
    after = [done for done in made.steps[found:] if done.step.kind is StepKind.TEST]
    assert len(after) == 3
    assert all(done.shown.at_least is None for done in after)
    assert steps[-1] is StepKind.PROVE_AGAIN


def test_with_its_own_device_alone_nothing_is_looked_for():
    alone = as_planned(replace(PUMP, other_feed=""))
    assert alone.solved
    assert StepKind.FIND_SOURCE not in kinds_of(alone)
    assert alone.seconds < as_planned(PUMP).seconds


def test_a_tester_that_is_not_what_it_was_proves_nothing_dead():
    lame = tuple(replace(tester, proved=False) for tester in PUMP.kit)
    assert not as_planned(replace(PUMP, kit=lame)).solved
    assert not as_planned(replace(PUMP, kit=(), held=())).solved


def test_the_second_tester_is_taken_where_the_first_does_not_serve():
    [two_pole, *_], [held, *_] = PUMP.kit, PUMP.held
    lame, unfit = replace(two_pole, id="lame", proved=False), replace(held, id="lame")
    made = as_planned(replace(PUMP, kit=(lame, two_pole), held=(unfit, held)))
    assert (made.solved, made.tester) == (True, two_pole.id)


@given(st.lists(st.sampled_from(AT_THE_BOARD)))
def test_it_is_dead_only_where_its_device_is_off_and_a_feed_that_was_found_is_off_too(done):
    acts = [Act(doing, float(second)) for second, doing in enumerate(done)]
    found = progress(acts)
    own = [doing for doing in done if doing in (Doing.OFF, Doing.ON)]
    is_off = bool(own) and own[-1] is Doing.OFF
    since = done[done.index(Doing.LOOKED) :] if Doing.LOOKED in done else []
    other = [doing for doing in since if doing in (Doing.FEED_OFF, Doing.FEED_ON)]
    other_is_off = bool(other) and other[-1] is Doing.FEED_OFF
    assert (found.fed("") == "open") == is_off
    assert (found.fed("an inverter") == "open") == (is_off and other_is_off)


SURVEY = {
    "format": "even-probe/survey",
    "version": 1,
    "label": "Larkspur Hill Observatory",
    "practice": "north-america",
    "supply": {"system": "120", "earthing": "TN-C-S"},
    "points": [
        {
            "id": "3f1c-outlet",
            "kind": "outlet",
            "label": "Outlet 3, by the lathe",
            "room": "Workshop",
            "terminals": ["L", "N", "PE"],
            "circuit": {"label": "Workshop outlets", "board": "Warm room board W", "rating_a": 20, "length_m": 18},
            "readings": [{"quantity": "voltage", "from": "L", "to": "N", "value": 119.8, "id": "r-1"}],
        }
    ],
}
KIT = [
    {"id": "7a-m2", "kind": "multimeter", "label": "Meter M2", "rated_v": 600, "proved": True},
    {"id": "7a-m3", "kind": "multimeter", "label": "Meter M3", "rated_v": 600, "proved": True},
    {"id": "7a-m4", "kind": "multimeter", "label": "Meter M4", "rated_v": 600, "known_issue": "lent by Anna"},
]
NAMES = ("Larkspur", "lathe", "3f1c", "Workshop", "Warm room", "Meter M", "7a-m", "Anna", "119.8", "r-1")
possible = list(shipped()["cold-kettle"].possible())


def made(hidden="open-earth", **told):
    kit = [parse(InstrumentEntry, one) for one in KIT]
    about = {"seed": 4, "step": 2, "title": "A case", **told}
    return case_of(parse(SurveyFile, SURVEY), kit, hidden=hidden, **about)


@given(st.sampled_from(possible), st.integers(0, 2**31))
@settings(max_examples=20)
def test_a_case_of_a_real_point_keeps_its_facts_and_no_name(hidden, seed):
    case = made(hidden, seed=seed)
    written = json.dumps(case.model_dump(mode="json", by_alias=True, exclude_none=True))
    assert [name for name in NAMES if name in written] == []
    circuit = case.installation.points[0].circuit
    assert (circuit.rating_a, circuit.length_m) == (20, 18)
    assert case.hidden.condition.id == hidden
    assert case == made(hidden, seed=seed)
    assert case.complaint


def test_testers_that_are_the_same_are_one_and_others_of_a_kind_are_numbered():
    assert [one.id for one in made().installation.instruments] == ["multimeter", "multimeter 2"]


@pytest.mark.parametrize("wrong", [{"hidden": "gremlin"}, {"hidden": "same-leg"}, {"step": 0}, {"title": " "}])
def test_what_cannot_be_made_a_case_of_is_named(wrong):
    with pytest.raises(FormatError):
        made(**wrong)


THREE = (Terminal.L1, Terminal.L2, Terminal.L3, Terminal.N, Terminal.PE)
ONE = (Terminal.L, Terminal.N, Terminal.PE)
CIRCUITS = {
    "one line": SheetCircuit(PRACTICES["british"], SYSTEMS["230"], (SheetPoint("p", "p", ONE),)),
    "three lines": SheetCircuit(PRACTICES["continental"], SYSTEMS["230/400"], (SheetPoint("p", "p", THREE),)),
    "a ring": SheetCircuit(PRACTICES["british"], SYSTEMS["230"], (SheetPoint("p", "p", ONE),), ring=True),
}


@pytest.mark.parametrize("circuit", CIRCUITS.values(), ids=CIRCUITS)
def test_a_line_measures_between_its_ends_in_the_unit_of_its_form_and_says_no_value(circuit):
    lines = lines_of(circuit)
    measured = {line.id: (line, measured_along(line, {}, circuit.practice)) for line in lines}
    told = {name: (line, reading) for name, (line, reading) in measured.items() if reading is not None}
    assert len(told) >= 6 or circuit.ring
    assert all((reading is None) == (line.kind in ("ring", "closed-contact")) for line, reading in measured.values())
    for line, reading in told.values():
        figure = next(f for f in DEAD_TESTS[line.kind].fields if isinstance(f, Figure))
        assert reading["device"] == "open"
        assert reading["from"] != reading["to"]
        assert {"value", "at_least", "over_range"}.isdisjoint(reading)
        assert QUANTITIES[reading["quantity"]].written.units[0] == figure.unit


def test_what_is_picked_is_measured_with():
    circuit = CIRCUITS["one line"]
    line = next(line for line in lines_of(circuit) if line.kind == "insulation")
    assert measured_along(line, {"test_v": 250.0}, circuit.practice)["test_v"] == 250.0
    assert measured_along(line, {"over_range": True}, circuit.practice) == measured_along(line, {}, circuit.practice)


@given(st.floats(1e-2, 9e8))
def test_what_is_typed_of_a_display_is_what_it_shows(ohms):
    for quantity, unit in ((RESISTANCE, "ohm"), (INSULATION, "Mohm")):
        reading = Reading("r", Measurement(quantity, Terminal.N, Terminal.PE), value=ohms)
        assert to_si(float(typed(reading)), unit) == pytest.approx(ohms, rel=1e-5)
    assert typed(Reading("r", Measurement(RESISTANCE, Terminal.N, Terminal.PE), over_range=True)) == "OL"
