"""Which reading decides: what is offered, and whether it keeps its word."""

from dataclasses import replace

import numpy as np
import pytest

from evenprobe.conditions import conditions_for
from evenprobe.interpretation import Verdict, capabilities_here, interpret
from evenprobe.interpretation.next_measurement import Obstacle
from evenprobe.interpretation.next_measurement.candidates import candidates
from evenprobe.interpretation.next_measurement.obstacles import obstacles_to
from evenprobe.interpretation.next_measurement.shortest_way import Step, shortest_way
from evenprobe.quantities import LAMPS, PRESENCE, RESISTANCE, VOLTAGE, Measurement, Reading
from evenprobe.quantities.along_the_run import least_metres
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from tests.core.installations import continental, ohms, outlet, several, standing, volts

METER = Instrument("meter", kinds.MULTIMETER, proved=True)
DETECTOR = Instrument("detector", kinds.NON_CONTACT, proved=True)
LOW_OHM = Instrument("low ohm", kinds.LOW_OHM, proved=True)
HEALTHY = (volts("L-N", 120.4), volts("L-PE", 120.5), volts("N-PE", 0.1))


def setups(tests):
    return {
        (
            t.measurement.quantity,
            frozenset((t.measurement.from_, t.measurement.to)),
            t.measurement.load_here_a is not None,
            t.measurement.load_elsewhere_a is not None,
            t.measurement.input,
        )
        for t in tests
    }


@pytest.mark.parametrize("point", [outlet(), continental()])
def test_what_is_offered_was_not_taken_and_rules_out_only_what_stands(point):
    taken = [volts("L-N", point.system.nominal_volts), volts("N-L", point.system.nominal_volts, id="again")]
    result = interpret(point, taken, [METER])
    assert 1 <= len(result.next_tests) <= 3
    assert (VOLTAGE, frozenset((Terminal.L, Terminal.N)), False, False, "high-z") not in setups(result.next_tests)
    for test in result.next_tests:
        assert set(test.rules_out) <= standing(result)
        assert test.seconds > 0
        assert test.measurement.instrument is METER


def test_each_offer_rules_out_something_else():
    result = interpret(outlet(), HEALTHY, [METER])
    promised = [t.rules_out for t in result.next_tests]
    assert len(set(promised)) == len(promised)


@pytest.mark.parametrize("seed", range(4))
def test_what_an_offer_promises_on_a_sound_outlet_falls_when_it_is_taken(seed):
    """Of what three offers in turn promise, by far most falls on a sound outlet read with full tester error."""
    point, errors = outlet(), TesterErrors(np.random.default_rng([5, seed]))
    correct = next(c for c in conditions_for(point) if c.id == "correct")
    hidden = HiddenPoint(point, correct, np.random.default_rng([6, seed]))
    readings, promised, kept = [], 0, 0
    for turn in range(4):
        result = interpret(point, readings, [METER])
        assert "correct" in standing(result)
        if not result.next_tests:
            break
        offer = result.next_tests[0]
        readings.append(hidden.read(f"r{turn}", offer.measurement, errors))
        after = standing(interpret(point, readings, [METER]))
        promised += len(offer.rules_out)
        kept += len(set(offer.rules_out) - after)
    assert promised
    assert kept >= 0.6 * promised


def test_touched_metal_comes_first_while_it_may_well_be_live_and_beside_the_way_while_it_hardly_is():
    hardly = interpret(outlet(), HEALTHY, [METER]).next_tests
    well = interpret(continental(), (volts("L-N", 230.0), volts("L-PE", 238.0), volts("N-PE", 8.0)), [METER]).next_tests
    for offered in (hardly[:2], well[:1]):
        assert any(t.measurement.of_metal_to_reference and t.rules_out for t in offered)


def test_nothing_is_plugged_in_before_live_metal_is_ruled_out():
    offered = interpret(outlet(), HEALTHY, [METER]).next_tests
    assert offered[0].measurement.load_here_a is None
    assert offered[0].measurement.load_elsewhere_a is None


def test_only_what_the_kit_can_do_is_offered():
    assert all(
        t.measurement.instrument == LOW_OHM
        for t in interpret(outlet(), HEALTHY, [LOW_OHM]).next_tests
        if t.measurement.quantity is RESISTANCE
    )


def test_a_detector_is_held_to_the_metal_beside_what_decides_and_only_once():
    """Its alarm finds a danger in three seconds; its silence strikes nothing out, so it never comes first."""
    *decide, screen = interpret(outlet(), HEALTHY, [METER, DETECTOR]).next_tests
    assert decide
    assert (screen.measurement.quantity, screen.measurement.from_, screen.rules_out) == (PRESENCE, Terminal.PE, ())
    silent = Reading("s", screen.measurement, alarm=False)
    after = interpret(outlet(), [*HEALTHY, silent], [METER, DETECTOR]).next_tests
    assert PRESENCE not in {t.measurement.quantity for t in after}
    flat = Instrument("d", kinds.NON_CONTACT, proved=False)
    assert PRESENCE not in {t.measurement.quantity for t in interpret(outlet(), HEALTHY, [METER, flat]).next_tests}


def test_a_tester_that_is_known_not_to_work_is_not_offered_and_the_note_says_what_would_help():
    dead = Instrument("dead", kinds.MULTIMETER, proved=False)
    result = interpret(outlet(), HEALTHY, [dead])
    assert result.next_tests == ()
    assert result.next_tests_note.startswith("Enough")
    assert "a clamp" in result.next_tests_note or "a multimeter" in result.next_tests_note


def test_what_cannot_be_had_is_named_when_nothing_else_is_left():
    """Three voltages by whoever has no reference, no load, and may neither open nor switch off anything."""
    low = (volts(pair, 119.8, input="low-z", id=f"{pair} low") for pair in ("L-PE", "L-N"))
    done = (*HEALTHY, *low, volts("N-PE", 0.1, input="low-z", id="N-PE low"))
    stuck = interpret(outlet(), done, [METER], cannot=tuple(Obstacle))
    assert stuck.next_tests == ()
    assert "an independent ground" in stuck.next_tests_note or "the panel opened" in stuck.next_tests_note
    assert interpret(outlet(), done, [METER]).next_tests


def test_where_nothing_stands_it_says_what_comes_nearest_and_asks_to_take_it_again():
    """Never a dead end: which two conditions miss which reading, by how much, and what to repeat."""
    contradictory = interpret(outlet(), [*HEALTHY, volts("L-N", 300.0, id="slip")], [METER])
    assert "slip" in contradictory.retake
    again = [test.measurement for test in contradictory.next_tests]
    assert again == [volts("L-N", 0.0).measurement], "two readings of one thing are one to repeat"
    one, other = contradictory.nearest
    assert 1.0 < one.misfit <= other.misfit
    low, high = one.reason.would_show
    assert not low <= one.reason.seen <= high
    for near in contradictory.nearest:
        assert near.condition.name_in(outlet().practice) in contradictory.summary


def test_readings_without_a_slip_among_them_are_repeated_where_the_nearest_miss_them():
    wild = [volts("L-N", 119.0), volts("L-PE", 400.0), volts("N-PE", 90.0), volts("PE-REF", 300.0)]
    result = interpret(outlet(), wild, [METER])
    assert result.verdict in (Verdict.CONTRADICTORY, Verdict.DANGER)
    assert result.next_tests


def test_when_all_that_stands_is_fine_no_more_is_asked():
    chain = [
        *HEALTHY,
        volts("PE-REF", 0.1),
        ohms("N-PE", 0.25),
        volts("N-PE", 1.1, load_elsewhere_a=10.0),
        volts("L-N", 118.1, load_elsewhere_a=10.0),
        volts("L-N", 118.0, load_here_a=10.0),
        volts("N-PE", 1.2, load_here_a=10.0),
    ]
    result = interpret(outlet(), chain, [METER])
    fine = all(o.severity.is_fine for o in result.conditions if o.standing)
    assert bool(result.next_tests or result.next_tests_note) is not fine


def test_at_an_untouched_outlet_the_order_is_the_usual_one_unless_danger_is_suspected():
    taken = []
    for pair, value in (("L-N", 120.2), ("L-PE", 120.4), ("N-PE", 0.1)):
        first = interpret(outlet(), taken, [METER]).next_tests[0].measurement
        assert (first.from_, first.to, first.as_is) == (*map(Terminal, pair.split("-")), True)
        taken.append(volts(pair, value))
    suspected = interpret(outlet(), [volts("L-N", 0.2)], [METER]).next_tests[0].measurement
    assert (suspected.from_, suspected.to) != (Terminal.L, Terminal.N)


@pytest.mark.parametrize(
    ("cannot", "needs"),
    [
        (Obstacle.REFERENCE, lambda m: Terminal.REF in m.ends),
        (Obstacle.LOAD, lambda m: m.under_load),
        (Obstacle.OPEN, lambda m: m.neutral == "lifted" or any("BOARD" in end for end in m.ends)),
        (Obstacle.SWITCH_OFF, lambda m: m.quantity.dead),
        (Obstacle.UNPLUG, lambda m: m.nothing_else_on),
    ],
)
def test_what_a_person_cannot_do_is_not_asked_for_and_something_else_is(cannot, needs):
    anything = interpret(outlet(), HEALTHY, [METER]).next_tests
    offered = interpret(outlet(), HEALTHY, [METER], cannot=[cannot]).next_tests
    assert offered
    assert not any(needs(t.measurement) for t in offered)
    assert offered != anything or not any(needs(t.measurement) for t in anything)


def test_not_all_that_is_offered_wants_the_same_thing():
    offered = [obstacles_to(t.measurement) for t in interpret(outlet(), HEALTHY, [METER]).next_tests]
    assert not set.intersection(*offered)


@pytest.mark.parametrize("seed", range(3))
@pytest.mark.parametrize(
    ("point", "most"), [(outlet(), 7), (continental(), 6), (several("L1 L2 N PE"), 8)], ids=["120", "230", "120/240"]
)
def test_a_sound_outlet_is_safe_in_a_few_readings_though_supply_and_loads_move(point, most, seed):
    """The figures of `bench/steps.py`, in small."""
    correct = next(c for c in conditions_for(point) if c.id == "correct")
    errors = TesterErrors(np.random.default_rng([8, seed]))
    hidden, readings = HiddenPoint(point, correct, np.random.default_rng([9, seed]), moves=True), []
    for number in range(most):
        offer = interpret(point, readings, [METER]).next_tests[0].measurement
        readings.append(hidden.read(f"r{number}", offer, errors, at=20.0 * number))
        if interpret(point, readings, [METER]).verdict in (Verdict.SAFE, Verdict.CORRECT):
            return
    pytest.fail(f"not safe after {most}")


def test_with_a_low_ohm_tester_the_way_leads_to_correct():
    point, kit = continental(), [METER, LOW_OHM]
    correct = next(c for c in conditions_for(point) if c.id == "correct")
    errors = TesterErrors(np.random.default_rng(8))
    hidden, readings = HiddenPoint(point, correct, np.random.default_rng(9), moves=True), []
    while (found := interpret(point, readings, kit)).verdict is not Verdict.CORRECT and len(readings) < 7:
        readings.append(hidden.read(f"r{len(readings)}", found.next_tests[0].measurement, errors))
    assert found.verdict is Verdict.CORRECT
    assert any(r.measurement.far_ends == "joined" and r.measurement.nothing_else_on for r in readings)


def test_the_quickest_way_rules_out_all_and_opens_the_circuit_once():
    dead = Measurement(RESISTANCE, Terminal.PE, Terminal.BOARD_PE, device="open")
    more = Measurement(RESISTANCE, Terminal.N, Terminal.BOARD_N, device="open")
    live = Measurement(VOLTAGE, Terminal.PE, Terminal.REF)
    out = [frozenset("ab"), frozenset("cd"), frozenset("bc")]
    steps = [Step((i,), rules_out) for i, rules_out in enumerate(out)]
    assert {s.numbers for s in shortest_way([dead, more, live], steps, frozenset("abcd"))} == {(0,), (1,)}
    assert {s.numbers for s in shortest_way([dead, more, live], steps, frozenset("bcx"))} == {(2,)}
    many = frozenset(str(n) for n in range(12))
    each = [Step((i,), frozenset({str(i)})) for i in range(12)]
    assert len(shortest_way([live] * 12, each, many)) == 12


def test_a_lamp_tester_sees_an_open_line_and_never_a_false_earth():
    lamps = Instrument("lamps", kinds.LAMP_TESTER, proved=True)
    found = capabilities_here(outlet(), (), lamps)
    can, cannot = ({c.id for c in conditions} for conditions in (found.can, found.cannot))
    assert {"open-line", "line-neutral-swapped", "open-neutral"} <= can
    assert {"earth-from-neutral", "earth-from-neutral-swapped", "neutral-earth-swapped"} <= cannot
    assert not can & cannot


def test_a_plug_tester_meets_the_contacts_of_its_outlet_only():
    plug = Instrument("plug", kinds.DIGITAL_PLUG_TESTER, proved=True)
    found = capabilities_here(outlet(), HEALTHY, plug)
    assert "earth-from-neutral-swapped" in {c.id for c in found.cannot}


def test_a_detector_alone_rules_nothing_out():
    detector = Instrument("detector", kinds.NON_CONTACT, proved=True)
    assert capabilities_here(outlet(), (), detector).can == ()


def test_the_board_is_asked_only_after_a_load_at_the_point_showed_what_is_lost():
    at_board = {Terminal.BOARD_L, Terminal.BOARD_N}

    def asked(*readings):
        return any(m.quantity is VOLTAGE and m.ends == at_board for m in candidates(outlet(), readings, [METER]))

    assert not asked(*HEALTHY)
    assert asked(*HEALTHY, volts("L-N", 112.0, load_here_a=10.0))


LAMP_PLUG = Instrument("lamps", kinds.LAMP_TESTER, proved=True)


@pytest.mark.parametrize(("kit", "place"), [([LAMP_PLUG], 0), ([METER, LAMP_PLUG], 2)])
def test_lamps_are_offered_first_to_whoever_has_no_volts_and_beside_them_to_whoever_has(kit, place):
    offered = interpret(outlet(), (), kit).next_tests
    assert [t.measurement.quantity is LAMPS for t in offered].index(True) == place
    assert "line-earth-swapped" in offered[place].rules_out
    lit = Reading("lit", offered[place].measurement, lit={"L-N": True, "L-PE": True, "N-PE": False})
    assert not any(t.measurement.quantity is LAMPS for t in interpret(outlet(), (lit,), kit).next_tests)
    promised = set(offered[place].rules_out)
    assert len(promised - standing(interpret(outlet(), (lit,)))) >= 0.6 * len(promised)


@pytest.mark.parametrize("rating_a", [1e-5, 0.1, 0.5, 1.0])
def test_a_small_device_is_offered_loads_that_it_carries(rating_a):
    point = replace(outlet(), circuit=replace(outlet().circuit, rating_a=rating_a))
    offered = {m.load_here_a for m in candidates(point, [], [METER]) if m.load_here_a}
    assert offered
    assert all(0 < amperes <= rating_a for amperes in offered)
    assert interpret(point, [volts("L-N", 119.8)], [METER]).verdict is Verdict.UNCONFIRMED


def test_a_load_elsewhere_has_to_be_far_enough_along_the_run():
    near, far = (replace(continental(), circuit=replace(continental().circuit, length_m=m)) for m in (3.0, 60.0))
    offered = {p: [m for m in candidates(p, (), [METER]) if m.load_elsewhere_a is not None] for p in (near, far)}
    assert not offered[near], "where the whole run is too short for it to tell"
    for m in offered[far]:
        assert least_metres(replace(m, load_elsewhere_a=2 * m.load_elsewhere_a), far) < least_metres(m, far) <= 60.0
        assert f"{least_metres(m, far):g} m along the run" in m.quantity.warning(m, far)
