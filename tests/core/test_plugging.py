"""Before plugging in: what a thing needs, what the outlet has, and that nothing open is ever plugged into."""

from dataclasses import replace

import numpy as np
import pytest

from evenprobe.conditions import CONDITIONS, conditions_for
from evenprobe.interpretation import interpret
from evenprobe.plugging import Answer, Needs, Result, may_plug_in
from evenprobe.plugging.wiring import topic_of
from evenprobe.practices import CONTINENTAL
from evenprobe.quantities import FREQUENCY, PRESENCE, TRIP, Measurement, Reading
from evenprobe.rounds import quick_set
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.supplies import Earthing
from evenprobe.testers import TYPED, Instrument, kinds
from evenprobe.wiring import CircuitFacts, Terminal
from tests.core.installations import outlet, several, volts

VAN = Needs(1, 16, volts_to_neutral=230, hertz=50)
STALL = outlet(CONTINENTAL, "230", Earthing.TN_S, CircuitFacts(16, None, None, 30))
KETTLE = Needs(1, 10, volts_to_neutral=120)
HEALTHY = (volts("L-N", 231.0), volts("L-PE", 231.2), volts("N-PE", 0.2))
TRIPPED = Reading("trip", Measurement(TRIP, Terminal.L, Terminal.PE, test_ma=30), tripped=True)


def asked(point, needs, *readings):
    return may_plug_in(point, readings, needs, interpret(point, readings))


def result(answer, check):
    return next(c.result for c in answer.checks if c.id == check)


def test_nothing_measured_asks_for_the_first_pair_it_is_connected_between():
    answer = asked(STALL, VAN)
    assert answer.answer is Answer.ONE_MORE
    assert answer.take is not None
    assert {answer.take.from_, answer.take.to} == {Terminal.L, Terminal.N}


def test_three_healthy_voltages_do_not_let_a_van_be_plugged_in():
    answer = asked(STALL, VAN, *HEALTHY)
    assert answer.answer is Answer.ONE_MORE
    assert result(answer, "range L-N") is Result.YES
    assert {result(answer, topic) for topic in ("order", "earth", "supply")} == {Result.OPEN}
    assert answer.take is not None


@pytest.mark.parametrize(
    ("needs", "check"),
    [
        (replace(VAN, volts_to_neutral=120), "range L-N"),
        (replace(VAN, amperes=20), "current"),
        (replace(VAN, hertz=60), "frequency"),
        (replace(VAN, lines=3, volts_between_lines=400), "contacts"),
    ],
)
def test_what_does_not_suit_the_thing_stops_it(needs, check):
    answer = asked(STALL, needs, *HEALTHY)
    assert answer.answer is Answer.DO_NOT
    assert result(answer, check) is Result.NO


def test_a_neutral_or_an_earth_that_is_not_there_stops_it():
    without = replace(STALL, terminals=(Terminal.L, Terminal.N))
    assert result(asked(without, VAN), "contacts") is Result.NO
    assert result(asked(without, replace(VAN, earth=False)), "contacts") is Result.YES
    dryer = several("L1 L2 PE")
    assert result(asked(dryer, Needs(2, 24, 120, 240)), "contacts") is Result.NO
    assert result(asked(dryer, Needs(2, 24, volts_between_lines=240)), "contacts") is Result.YES


def test_208_volts_is_not_what_240_volt_equipment_is_made_for():
    readings = (volts("L1-L2", 208.2), volts("L1-N", 120.2), volts("L2-N", 120.1))
    answer = asked(several("L1 L2 N PE"), Needs(2, 30, 120, 240), *readings)
    assert answer.answer is Answer.DO_NOT
    assert result(answer, "range L1-L2") is Result.NO
    assert result(answer, "range L1-N") is Result.YES


def test_both_lines_on_one_leg_do_not_run_a_machine_of_two():
    readings = (volts("L1-L2", 0.2), volts("L1-N", 120.2), volts("L2-N", 120.1))
    answer = asked(several("L1 L2 N PE"), Needs(2, 30, 120, 240), *readings)
    assert answer.answer is Answer.DO_NOT
    assert result(answer, "supply") is Result.NO


def test_live_metalwork_stops_it_whoever_says_so():
    detector = Instrument("d1", kinds.NON_CONTACT)
    alarm = Reading("alarm", Measurement(PRESENCE, Terminal.PE, None, detector), alarm=True)
    answer = asked(STALL, VAN, *HEALTHY, alarm)
    assert answer.answer is Answer.DO_NOT
    assert result(answer, "metalwork") is Result.NO


def test_a_tester_that_clears_nothing_may_still_warn():
    broken = Instrument("m5", kinds.MULTIMETER, proved=False)
    too_much = asked(outlet(), KETTLE, volts("L-N", 240.0, instrument=broken))
    assert result(too_much, "range L-N") is Result.NO
    right = asked(outlet(), KETTLE, volts("L-N", 120.0, instrument=broken))
    assert result(right, "range L-N") is Result.OPEN


def test_a_source_of_its_own_has_to_show_its_frequency():
    generator = outlet(system="standalone-120", earthing=Earthing.TN_S)
    needs = replace(KETTLE, hertz=60)
    assert result(asked(generator, needs), "frequency") is Result.OPEN
    for seen, expected in ((60.4, Result.YES), (66.0, Result.NO), (63.0, Result.OPEN)):
        hertz = Reading("hz", Measurement(FREQUENCY, Terminal.L, Terminal.N), value=seen)
        assert result(asked(generator, needs, hertz), "frequency") is expected


def test_a_device_recorded_has_to_be_tripped_and_none_recorded_is_a_note():
    no_trip = replace(TRIPPED, tripped=False)
    too_little = replace(TRIPPED, measurement=replace(TRIPPED.measurement, test_ma=6.0), tripped=False)
    for readings, expected in (((), Result.OPEN), ((TRIPPED,), Result.YES), ((no_trip,), Result.NO)):
        assert result(asked(STALL, VAN, *HEALTHY, *readings), "trip") is expected
    assert result(asked(STALL, VAN, *HEALTHY, too_little), "trip") is Result.OPEN
    assert result(asked(outlet(), KETTLE), "trip") is Result.NOTE


def test_a_rating_nobody_recorded_is_asked_for_and_three_hours_take_less_of_it():
    unknown = replace(outlet(), circuit=CircuitFacts())
    assert result(asked(unknown, KETTLE), "current") is Result.OPEN
    charger = Needs(1, 18, volts_to_neutral=120)
    assert result(asked(outlet(), charger), "current") is Result.YES
    assert result(asked(outlet(), replace(charger, continuous=True)), "current") is Result.NO


def test_taking_what_is_asked_for_again_and_again_lets_a_sound_outlet_be_plugged_into():
    point, errors = outlet(), TesterErrors(np.random.default_rng(2))
    hidden = HiddenPoint(point, CONDITIONS["correct"], np.random.default_rng(1))
    readings = []
    for number in range(20):
        answer = asked(point, KETTLE, *readings)
        if answer.take is None:
            break
        readings.append(hidden.read(f"r{number}", answer.take, errors))
    assert answer.answer is Answer.PLUG_IN
    assert "portable" in answer.says, "no residual-current device is recorded"
    assert len(readings) >= len(quick_set(point, TYPED))


def test_every_condition_that_is_not_fine_belongs_to_a_topic_and_stops_plugging_in():
    """Whatever is hidden there, what a meter shows of the quick set never lets anything be plugged in unless fine."""
    for point, needs in ((STALL, VAN), (several("L1 L2 N PE"), Needs(2, 24, 120, 240))):
        for condition in conditions_for(point):
            assert topic_of(condition) in ("order", "earth", "supply")
            if condition.severity_at(point).is_fine:
                continue
            hidden = HiddenPoint(point, condition, np.random.default_rng(7))
            errors = TesterErrors(np.random.default_rng(8))
            readings = [hidden.read(f"r{n}", m, errors) for n, m in enumerate(quick_set(point, TYPED))]
            assert asked(point, needs, *readings).answer is not Answer.PLUG_IN, condition.id


def test_the_catalogue_s_earth_conditions_are_told_as_such():
    told = {
        "open-earth": "earth",
        "live-casing": "earth",
        "source-not-bonded": "earth",
        "high-resistance-line": "supply",
        "earth-from-neutral-swapped": "order",
    }
    assert {c: topic_of(CONDITIONS[c]) for c in told} == told


def test_an_outlet_whose_lines_make_no_sense_is_not_plugged_into():
    without = replace(STALL, terminals=(Terminal.N, Terminal.PE))
    answer = asked(without, replace(VAN, hertz=50))
    assert answer.answer is Answer.DO_NOT
    assert "no line contact" in next(c.text for c in answer.checks if c.id == "wiring")
