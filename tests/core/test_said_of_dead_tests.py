"""Every sentence of dead tests is said of some test, in whole words, and says what its figures say."""

import itertools
import re

import pytest

from evenprobe.deadtests import Accuracy, Result
from evenprobe.deadtests.components import battery, capacitor, coil, element, panel_string, temperature_sensor
from evenprobe.deadtests.continuity import Run, closed_contact, continuity, separation
from evenprobe.deadtests.insulation import CircuitInsulation, insulation, ratios, several
from evenprobe.deadtests.protective import frequency, load, residual_current
from evenprobe.deadtests.ranges import MANUAL_RANGES, over_range_means
from evenprobe.deadtests.rings import RingOutlet, ring
from evenprobe.deadtests.sentences import BEFORE_HARM, JUDGED, RANGES, SLIPS
from evenprobe.deadtests.sheet import Step, before_harm
from evenprobe.deadtests.slips import did_you_mean
from evenprobe.limits.dead_tests import insulation_rule
from evenprobe.practices import BRITISH, NORTH_AMERICA
from evenprobe.supplies import SYSTEMS
from evenprobe.wiring import conductor_named

EXACT = Accuracy(2.0, 3, 0.01)
VOLTS_230 = SYSTEMS["230"]
OHMS = (None, 0.0, 0.02, 0.1, 0.16, 0.3, 0.5, 1.0, 5.0, 50.0, 2e3, 99e3, 1e6)
RUN = Run(conductor_named("2.5 mm2"), 20.0)


def shows(value):
    return EXACT.beyond() if value is None else EXACT.shows(value)


def of_continuity():
    for ohms, null in itertools.product(OHMS, (None, 0.0, 0.1, 1.2)):
        for run in (Run(), RUN, Run(conductor_named("2.5 mm2"), 20.0, 35.0)):
            yield continuity(shows(ohms), null, run)
            yield separation(shows(ohms), null, run, VOLTS_230)
        for what, opens, latches in itertools.product(("fuse", "switch"), (None, True, False), (None, False)):
            yield closed_contact(what, shows(ohms), null, opens, latches=latches)
    yield closed_contact("switch", None, None, True)


def of_rings():
    ends = {"r1": 0.48, "rn": 0.49, "r2": 0.8}
    read = {"r1_rn": 0.24, "r1_r2": 0.32}
    yield ring({**ends, "rn": None}, [])
    yield ring({**ends, "rn": 0.9}, [RingOutlet("a", **read)])
    yield ring(ends, [])
    yield ring(ends, [RingOutlet("a", **read)])
    yield ring(ends, [RingOutlet("a", 0.9, 0.9, label="Socket 1"), RingOutlet("b", 0.24, 0.9, label="Socket 2")])


def of_insulation():
    rule = insulation_rule("ordinary", VOLTS_230)
    for mohm, volts, warm, before, loads in itertools.product(
        (0.1, 0.98, 1.5, 300.0), (None, 250, 500), (None, 5, 45), (None, 1000.0), (None, "connected")
    ):
        how = {"temperature_c": warm, "previous_mohm_20c": before, "loads": loads}
        yield insulation(shows(mohm), rule, volts, **how)
        yield insulation(EXACT.beyond(mohm), rule, volts, **how)
    for r30, r60, r600 in itertools.product((None, 80.0, 120.0, 50.0), (100.0, 9000.0), (None, 90.0, 150.0, 300.0)):
        yield ratios(r30, r60, r600)
    for values in ((5.0, 3.0), (5.0, None), (None, None)):
        for together in (None, 0.2, 1.5, 40.0):
            circuits = [CircuitInsulation(f"c{i}", mohm) for i, mohm in enumerate(values)]
            yield several(circuits, together and shows(together), rule)


def of_parts():
    for value in (
        None,
        -12.6,
        0.1,
        1.1,
        1.3,
        1.6,
        11.0,
        12.3,
        12.7,
        17.6,
        35.0,
        46.0,
        47.5,
        50.0,
        150.0,
        195.5,
        230.0,
        300.0,
    ):
        yield capacitor(50, shows(value), None)
        for what in ("element", "filament"):
            yield element(230, 1000, shows(value), None, what)
        if value is None:
            yield coil(230, None, winding=shows(None))
            yield coil(230, None, winding=shows(40.0))
            continue
        yield from (battery(chemistry, shows(value)) for chemistry in ("lead-acid-12", "alkaline-1.5"))
        yield from (coil(230, shows(value), energised=on) for on in (True, False))
    yield from (panel_string(10, 40.0, shows(volts)) for volts in (400.0, 355.0, 320.0, -400.0))
    for off in (0.2, 1.0, 4.0):
        yield temperature_sensor([(20, 20 + off), (60, 60 + off)], None, EXACT)
        yield temperature_sensor([(20, 20 + off)], None, EXACT)


def of_protection():
    for kind, test, tripped, after in itertools.product(
        ("general", "S"), (10, 15, 20, 30, 150), (True, False), (None, 20.0, 300.0, 5000.0)
    ):
        if tripped or after is None:
            timed = None if after is None else shows(after)
            yield residual_current(kind, 30, test, tripped=tripped, practice=BRITISH, after_ms=timed)
    for running, start, curve, continuous in itertools.product(
        (None, 20.0, 32.0, 40.0), (None, 60.0, 130.0, 400.0), (None, "B"), (True, False)
    ):
        if running or start:
            taken, rose = (None if a is None else shows(a) for a in (running, start))
            yield load(32, taken, rose, curve, NORTH_AMERICA, continuous=continuous)
    yield from (frequency(hertz, VOLTS_230, BRITISH, Accuracy(0.5, 1, 0.01)) for hertz in (50.0, 50.5, 60.0))


OUTCOMES = [*of_continuity(), *of_rings(), *of_insulation(), *of_parts(), *of_protection()]


def test_every_sentence_is_said_of_some_test():
    said = {sentence.key for outcome in OUTCOMES for sentence in outcome.said}
    assert set(JUDGED.words) - said == set()


def test_a_result_is_told_in_whole_sentences():
    for text in {outcome.text for outcome in OUTCOMES}:
        assert re.fullmatch(r"[A-Z0-9].*\.", text), text
        assert not re.search(r"[{}]|None|nan|inf\b|  ", text), text


def test_no_result_is_better_than_what_is_said_of_it():
    """A passing result names no fault, and a failing one says what to do or what is wrong."""
    for outcome in OUTCOMES:
        keys = {sentence.key.rsplit(".", 1)[-1] for sentence in outcome.said}
        if outcome.result is Result.PASS:
            assert not keys & {"fail", "open", "broken", "short", "blown", "missing", "falling", "wet"}, outcome.text
        if outcome.result is Result.FAIL:
            assert not keys & {"pass", "apart", "stayed-in", "good"} or len(outcome.said) > 1, outcome.text


@pytest.mark.parametrize("unit", MANUAL_RANGES)
def test_past_its_range_a_display_says_to_go_up_while_there_is_anything_above(unit):
    ranges = MANUAL_RANGES[unit]
    told = [over_range_means(top, unit, ranges[-1]) for top in ranges]
    assert all("Go up a range" in text for text in told[:-1])
    assert "highest range" in told[-1]
    assert set(RANGES.words) == {"go-up", "highest"}


def test_a_slip_is_asked_about_both_ways():
    more, less = did_you_mean(300.0, 0.3, "ohm"), did_you_mean(0.0003, 0.3, "ohm")
    assert ("more" in more, "mΩ" in more) == (True, True)
    assert ("less" in less, "kΩ" in less) == (True, True)
    assert set(SLIPS.words) == {"more", "less"}


def test_what_is_warned_of_before_a_test_is_what_could_do_harm_there():
    rule = insulation_rule("ordinary", VOLTS_230)
    warned = {
        (step, dead, out): before_harm(step, dead=dead, loads_out=out, rule=rule)
        for step in Step
        for dead in (True, False)
        for out in (True, False, None)
    }
    assert {text for found in warned.values() for text in found} == {
        str(BEFORE_HARM.say(key, volts=rule.test_volts)) for key in BEFORE_HARM.words
    }
    assert all(not found for (step, dead, out), found in warned.items() if dead and out)
    assert all(not found for (step, *_), found in warned.items() if step in (Step.LOOK, Step.LOADS, Step.DISCHARGE))
    assert len(warned[Step.INSULATION, False, False]) == 2
