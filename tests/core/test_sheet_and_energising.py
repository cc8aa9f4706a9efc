"""The sheet of a circuit in the order of the work, the gate at its end, and the pictures beside it."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from math import inf

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.deadtests import Accuracy, Outcome, Result
from evenprobe.deadtests.energising import STATEMENTS, Lock, SheetRecord, Taken, in_the_way, steps_done
from evenprobe.deadtests.history import Visit, history
from evenprobe.deadtests.insulation import insulation
from evenprobe.deadtests.lines import lines_of
from evenprobe.deadtests.result_bar import result_bar
from evenprobe.deadtests.rings import RingOutlet, ring, ring_bars
from evenprobe.deadtests.sheet import LOOK_FOR, SheetCircuit, SheetPoint, Step, before_harm
from evenprobe.limits import Band, Limit
from evenprobe.limits.dead_tests import insulation_rule
from evenprobe.practices import BRITISH, CONTINENTAL
from evenprobe.sentences import Sentence
from evenprobe.supplies import SYSTEMS
from evenprobe.wiring import Terminal

CONTACTS = (Terminal.L, Terminal.N, Terminal.PE)
NEAR, FAR = SheetPoint("p1", "Socket 1", CONTACTS, 9), SheetPoint("p2", "Socket 2", CONTACTS, 21)
CIRCUIT = SheetCircuit(CONTINENTAL, SYSTEMS["230"], (NEAR, FAR), "2.5 mm2", temperature_c=14)
RULE = insulation_rule("ordinary", SYSTEMS["230"])


def said(words):
    return [Sentence("of-it", words)]


GOOD = Taken(Outcome(Result.PASS, said("fine")), dead=True)


def whole(circuit=CIRCUIT, **changes):
    """A sheet on which everything is done and well."""
    lines = lines_of(circuit)
    record = SheetRecord(
        lines=lines,
        taken={line.id: GOOD for line in lines},
        look={item.id: True for item in LOOK_FOR},
        left={},
        said=set(STATEMENTS),
        locks=(Lock("K-07", "Anna", "Anna"),),
        discharged=True,
        loads_out=True,
        null_ohm=0.1,
    )
    return replace(record, **changes)


def codes(record):
    return [way.code for way in in_the_way(record)]


def with_line(line, taken):
    record = whole()
    return replace(record, taken={**record.taken, line: taken})


def without(*lines, **changes):
    record = whole()
    return replace(record, taken={k: v for k, v in record.taken.items() if k not in lines}, **changes)


def test_the_protective_conductor_goes_to_every_point_and_the_rest_to_the_furthest():
    joined = [line for line in lines_of(CIRCUIT) if line.step is Step.CONTINUITY]
    assert [line.id for line in joined] == ["joined PE p1", "joined PE p2", "joined L p2", "joined N p2"]
    assert joined[1].preset["length_m"] == 21
    assert joined[1].preset["to"] == "BOARD-PE"


def test_every_pair_is_kept_apart_and_insulated():
    lines = lines_of(CIRCUIT)
    pairs = [f"{line.preset['from']}-{line.preset['to']}" for line in lines if line.step is Step.SEPARATION]
    assert pairs == ["L-N", "L-PE", "N-PE"]
    three_phase = SheetPoint("m", "Loom", (Terminal.L1, Terminal.L2, Terminal.L3, Terminal.N, Terminal.PE))
    board = SheetCircuit(CONTINENTAL, SYSTEMS["230/400"], (three_phase,))
    assert len([line for line in lines_of(board) if line.step is Step.INSULATION]) == 10


def test_a_ring_is_one_line_with_its_outlets():
    lines = lines_of(replace(CIRCUIT, practice=BRITISH, ring=True))
    assert [line.id for line in lines if line.step is Step.CONTINUITY] == ["ring"]
    assert [p["label"] for p in lines[0].preset["points"]] == ["Socket 1", "Socket 2"]


def test_the_test_voltage_comes_with_its_why_and_last_time_with_the_pair():
    circuit = replace(CIRCUIT, wiring="surge-protected", previous={"L-PE": 120.0})
    line = next(line for line in lines_of(circuit) if line.id == "insulation L-PE")
    assert (line.preset["test_v"], line.preset["previous_mohm_20c"]) == (250, 120.0)
    assert "surge protection" in line.why


def test_steps_come_in_the_order_of_the_work():
    order = [line.step for line in lines_of(CIRCUIT)]
    assert order == sorted(order, key=list(Step).index)
    assert next(iter(Step)) is Step.LOOK
    assert [*Step][-1] is Step.CLEAR


def test_harm_is_warned_of_before_it_is_done():
    dead = {"dead": True, "rule": RULE}
    assert before_harm(Step.INSULATION, loads_out=True, **dead) == ()
    assert "destroys electronics" in before_harm(Step.INSULATION, loads_out=False, **dead)[0]
    assert "Nobody said" in before_harm(Step.INSULATION, loads_out=None, **dead)[0]
    live = before_harm(Step.INSULATION, dead=False, loads_out=False, rule=RULE)
    assert ["Not proved dead" in live[0], "destroys" in live[1]] == [True, True]
    assert before_harm(Step.LOOK, dead=False, loads_out=None, rule=RULE) == ()


def test_a_whole_sheet_has_nothing_in_the_way():
    assert codes(whole()) == []
    assert all(steps_done(whole()).values())


@pytest.mark.parametrize(
    ("changes", "code"),
    [
        ({"look": {}}, "not-looked"),
        ({"look": {item.id: item.id != "burnt" for item in LOOK_FOR}}, "seen"),
        ({"discharged": False}, "not-discharged"),
        ({"said": {"people-told"}}, "boxes-closed"),
        ({"said": {"boxes-closed"}}, "people-told"),
        ({"locks": (Lock("K-07", "Anna"),)}, "lock-on"),
        ({"locks": (Lock("K-07", "Anna", "Ben"),)}, "lock-taken-by-another"),
    ],
)
def test_each_thing_left_out_is_in_the_way(changes, code):
    assert codes(whole(**changes)) == [code]


@pytest.mark.parametrize(
    ("taken", "code"),
    [
        (Taken(Outcome(Result.FAIL, said("worn")), dead=True), "fails"),
        (Taken(Outcome(Result.FAIL, said("worn")), dead=False), "fails"),
        (Taken(Outcome(Result.BORDERLINE, said("near")), dead=True), "borderline"),
        (Taken(Outcome(Result.INVALID, said("no")), dead=True), "invalid"),
        (Taken(Outcome(Result.PASS, said("fine")), dead=False), "does-not-count"),
        (
            Taken(Outcome(Result.PASS, said("fine")), dead=True, unfit="out of calibration"),
            "does-not-count",
        ),
        (
            Taken(Outcome(Result.PASS, said("fine"), question="did you mean kΩ?"), dead=True),
            "does-not-count",
        ),
    ],
)
def test_what_does_not_clear_is_in_the_way(taken, code):
    assert codes(with_line("device", taken)) == [code]


def test_a_question_somebody_stands_by_is_no_longer_in_the_way():
    asked = Taken(Outcome(Result.PASS, said("fine"), question="did you mean kΩ?"), dead=True, believed=True)
    assert codes(with_line("device", asked)) == []


def test_two_conductors_that_insulate_are_not_joined():
    assert codes(without("apart L-N")) == []
    assert codes(without("apart L-N", "insulation L-N")) == ["not-tested", "not-tested"]


def test_a_joint_that_was_found_is_in_the_way_whatever_insulation_says():
    joined = Taken(Outcome(Result.FAIL, said("a short")), dead=True)
    assert codes(with_line("apart L-N", joined)) == ["fails"]


def test_insulation_may_knowingly_be_left_and_the_device_may_not():
    reason = "the oven cannot be unplugged"
    assert codes(without("insulation L-N", left={"insulation L-N": reason})) == []
    assert codes(without("device", left={"device": reason})) == ["not-tested"]
    failing = Taken(Outcome(Result.FAIL, said("wet")), dead=True)
    record = with_line("insulation L-N", failing)
    assert codes(replace(record, left={"insulation L-N": reason})) == ["fails"]


@given(st.sets(st.sampled_from([line.id for line in lines_of(CIRCUIT)])), st.booleans())
def test_taking_more_away_never_clears_the_way(gone, told):
    fewer = without(*gone, said=set(STATEMENTS) if told else set())
    assert set(codes(whole())) <= set(codes(fewer))
    more = without(*gone, said=set())
    assert len(codes(more)) >= len(codes(fewer))


def insulated(mohm, previous=None):
    return insulation(
        Accuracy(5).shows(mohm), RULE, 500, temperature_c=20, previous_mohm_20c=previous, loads="disconnected"
    )


@given(st.floats(1e-4, 1e6), st.floats(1e-4, 1e6))
def test_a_bar_keeps_order_and_stays_on_its_length(one, other):
    low, high = (result_bar(insulated(m)) for m in sorted((one, other)))
    assert 0 <= low.at <= high.at <= 1
    assert low.reads[0] <= low.at <= low.reads[1]
    assert low.passes == high.passes


def test_a_bar_says_the_same_as_the_result():
    for mohm in (0.2, 3, 400):
        outcome = insulated(mohm, previous=200)
        bar = result_bar(outcome)
        assert (bar.at >= bar.passes[0]) is (outcome.result is not Result.FAIL)
        assert bar.expected > bar.passes[0]


def test_a_bar_of_what_may_be_on_both_sides_has_zero_in_its_middle():
    limit = Limit("capacitor.tolerance", "%", Band(-5, 5), "printed")
    outcome = Outcome(Result.PASS, [], limit, held=Accuracy(0).shows(0.0), expected=0.0)
    assert result_bar(outcome).at == pytest.approx(0.5)
    assert result_bar(Outcome(Result.NOTE, [])) is None
    assert result_bar(Outcome(Result.PASS, [], limit, held=Accuracy().beyond(inf))) is None


START = datetime(2025, 11, 28, 9, tzinfo=UTC)


def visits(*mohms, beyond=False):
    return [Visit(START + timedelta(days=180 * i), m, beyond and i == len(mohms) - 1) for i, m in enumerate(mohms)]


def test_a_fall_by_half_is_marked_and_a_slow_one_is_not():
    found = history(visits(180, 64, 40, 4.3), RULE)
    assert [m.halved for m in found.marks] == [False, True, False, True]
    assert found.halved


def test_more_than_the_range_is_no_fall():
    assert not history(visits(500, 200, beyond=True), RULE).halved


@given(st.lists(st.floats(0.002, 1e5), min_size=1, max_size=6))
def test_a_history_has_its_limit_and_every_visit_in_the_picture(mohms):
    found = history(visits(*mohms), RULE)
    for share in (found.limit_up, *(m.up for m in found.marks), *(m.across for m in found.marks)):
        assert -1e-9 <= share <= 1 + 1e-9
    ups = [m.up for m in sorted(found.marks, key=lambda m: m.visit.mohm_20c)]
    assert ups == sorted(ups)


def test_no_visit_is_an_empty_picture():
    assert history([], RULE).marks == ()


def test_a_ring_is_drawn_outlet_by_outlet_with_the_spur_standing_out():
    outlets = [RingOutlet("a", 0.31, 0.41), RingOutlet("b", 0.47, 0.62), RingOutlet("c", 0.31)]
    bars = ring_bars(ring({"r1": 0.62, "rn": 0.62, "r2": 1.02}, outlets), outlets)
    assert [(b.outlet, b.spur) for b in bars] == [("a", False), ("a", False), ("b", True), ("b", True), ("c", False)]
    assert all(b.up > b.limit if b.spur else b.up <= b.limit for b in bars)
    assert max(b.up for b in bars) < 1
    broken = ring({"r1": None, "rn": 0.6, "r2": 1.0}, outlets)
    assert ring_bars(broken, outlets) == ()
