"""Why a reading is kept and counts for nothing: each reason by the reading that has it, and by no other."""

import pytest

from evenprobe.quantities import (
    CURRENT,
    FREQUENCY,
    INSULATION,
    LAMPS,
    LOAD_HELD,
    PRESENCE,
    RESIDUAL_CURRENT,
    RESISTANCE,
    SEQUENCE,
    TRIP,
    VOLTAGE,
    Evidence,
    Kept,
    Measurement,
    Reading,
    weigh,
)
from evenprobe.quantities.sentences import KEPT, NOT_PROVED
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import CircuitFacts, Terminal
from evenprobe.wiring.points import BOARD_END
from tests.core.installations import outlet, several

L, N, PE = Terminal.L, Terminal.N, Terminal.PE
PROTECTED = outlet(circuit=CircuitFacts(20, None, 20, residual_ma=5))


def tester(kind, *, proved=True):
    return Instrument("t", kind, proved=proved)


METER, FLAT = tester(kinds.MULTIMETER), tester(kinds.MULTIMETER, proved=False)
DETECTOR, UNSURE = tester(kinds.NON_CONTACT), tester(kinds.NON_CONTACT, proved=False)
CLAMP, MEGGER = tester(kinds.CLAMP), tester(kinds.INSULATION_TESTER)
UNPROVED_PLUG = tester(kinds.DIGITAL_PLUG_TESTER, proved=False)
PLUG, LAMP = tester(kinds.DIGITAL_PLUG_TESTER), tester(kinds.LAMP_TESTER)


def took(quantity, from_=None, to=None, by=METER, unfit="", **seen):
    of = {key: seen.pop(key) for key in ("device", "dc", "test_ma", "load_here_a") if key in seen}
    return Reading("r", Measurement(quantity, from_, to, by, **of), unfit=unfit, **seen)


def said(key, **about):
    return str(KEPT.say(key, **about))


KEPT_READINGS = [
    (took(VOLTAGE, L, N, by=DETECTOR, value=120.0), said("does-not-measure", kind=DETECTOR.kind, what="volts")),
    (took(VOLTAGE, L, N, by=FLAT, value=120.0), said("unfit", why=NOT_PROVED)),
    (took(VOLTAGE, L, N, unfit="its leads are cut", value=120.0), said("unfit", why="its leads are cut")),
    (took(VOLTAGE, L, N, value=0.0, dc=True), said("direct-is-blind")),
    (took(VOLTAGE, BOARD_END[L], BOARD_END[N], value=0.0, device="open"), said("board-device-open")),
    (took(RESISTANCE, N, PE, by=DETECTOR, value=0.3), said("does-not-measure", kind=DETECTOR.kind, what="ohms")),
    (took(RESISTANCE, N, PE, by=FLAT, value=0.3, device="open"), said("not-proved")),
    (took(RESISTANCE, N, PE, value=0.3), said("supply-measured-too")),
    (took(INSULATION, L, PE, value=200e6, device="open"), said("no-test-voltage", kind=METER.kind)),
    (took(INSULATION, L, PE, by=MEGGER, value=200e6), said("board-measured-too")),
    (took(CURRENT, BOARD_END[L], by=DETECTOR, value=3.0), said("does-not-measure", kind=DETECTOR.kind, what="current")),
    (took(CURRENT, BOARD_END[L], BOARD_END[N], by=CLAMP, value=0.1), said("fields-cancel")),
    (took(CURRENT, L, by=CLAMP, value=3.0), said("not-at-the-board")),
    (took(CURRENT, BOARD_END[L], by=CLAMP, most=30.0), said("only-the-start")),
    (took(CURRENT, BOARD_END[L], by=CLAMP, value=0.0, device="open"), said("nothing-flows")),
    (took(CURRENT, BOARD_END[L], by=CLAMP, value=0.0, dc=True), said("nothing-flows")),
    (took(RESIDUAL_CURRENT, by=CLAMP, value=0.0, device="open"), said("nothing-flows")),
    (took(LOAD_HELD, tripped=False), said("held.no-load")),
    (took(LOAD_HELD, tripped=True, load_here_a=10.0), said("held.tripped")),
    (took(TRIP, L, PE, by=PLUG, tripped=False), said("trip.current-unknown")),
    (took(TRIP, L, PE, by=PLUG, tripped=True, test_ma=1.0), said("trip.by-something-else", test=1.0)),
    (took(TRIP, L, PE, by=UNPROVED_PLUG, tripped=False, test_ma=7.0), said("trip.not-proved")),
    (took(TRIP, L, PE, by=PLUG, tripped=False, test_ma=5.0), said("trip.need-not", test=5.0, must=6.0)),
    (took(PRESENCE, by=DETECTOR, alarm=False), said("nowhere")),
    (took(PRESENCE, L, by=DETECTOR, alarm=False), said("silence")),
    (took(PRESENCE, L, by=UNSURE, alarm=False), said("silence-not-proved")),
    (took(PRESENCE, L, by=DETECTOR, unfit="flat", alarm=False), said("silence-unfit", why="flat")),
    (took(LAMPS, by=tester(kinds.LAMP_TESTER, proved=False), lit={"L-N": True}), said("not-proved")),
    (took(LAMPS, by=LAMP, lit={"L-N": False}), said("dark")),
    (took(SEQUENCE, value=1.0), said("no-sequence")),
    (took(FREQUENCY, value=60.0), said("decides-nothing")),
]  # fmt: skip


@pytest.mark.parametrize(("reading", "why"), KEPT_READINGS, ids=[why[:40] for _, why in KEPT_READINGS])
def test_what_is_kept_says_why_and_strikes_nothing_out(reading, why):
    found = weigh(reading, PROTECTED)
    assert [type(one) for one in found] == [Kept]
    assert found[0].why == why


def test_without_a_device_on_record_a_missing_trip_proves_nothing_in_the_words_of_the_practice():
    (found,) = weigh(took(TRIP, L, PE, by=PLUG, tripped=False, test_ma=7.0), outlet())
    assert found.why == "no GFCI is recorded for this circuit, so no trip proves nothing"
    (held,) = weigh(took(LOAD_HELD, tripped=False, load_here_a=10.0), outlet())
    assert held.why == "no GFCI is recorded for this circuit, so none could have tripped"


def test_every_reason_there_is_is_the_reason_of_some_reading():
    reasons = {why for _, why in KEPT_READINGS}
    shapes = {
        key: words.split("{")[0]
        for key, words in KEPT.words.items()
        if not key.endswith((".no-device", ".never-tripped", ".alone", ".differs"))
    }
    unsaid = {key for key, start in shapes.items() if not any(why.startswith(start) for why in reasons)}
    assert unsaid - {"unfit"} == set(), "which begins with what is wrong"


@pytest.mark.parametrize(
    "reading",
    [
        took(VOLTAGE, L, N, value=120.0),
        took(RESISTANCE, N, PE, value=0.3, device="open"),
        took(INSULATION, L, PE, by=MEGGER, value=200e6, device="open"),
        took(CURRENT, BOARD_END[L], by=CLAMP, value=3.0),
        took(TRIP, L, PE, by=PLUG, tripped=False, test_ma=6.0),
        took(TRIP, L, PE, by=PLUG, tripped=True, test_ma=6.0),
        took(LOAD_HELD, tripped=False, load_here_a=10.0),
        took(RESIDUAL_CURRENT, by=CLAMP, value=0.0),
        took(LAMPS, by=LAMP, lit={"L-N": True}),
    ],
    ids=lambda reading: f"{reading.measurement.quantity} {reading.tripped or ''}",
)
def test_the_same_taken_as_it_should_be_counts(reading):
    assert any(isinstance(one, Evidence) for one in weigh(reading, PROTECTED))


def test_a_sequence_counts_where_there_is_one():
    three = several("L1 L2 L3 N PE", "230/400")
    assert isinstance(weigh(took(SEQUENCE, value=1.0), three)[0], Evidence)
