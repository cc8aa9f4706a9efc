"""Any tester may raise an alarm, only a fit and proved one clears: whatever it measures, wherever it is held."""

from dataclasses import replace

import numpy as np
import pytest
from bench.draws import draw, points

from evenprobe.interpretation import Verdict, interpret
from evenprobe.quantities import (
    CURRENT,
    FREQUENCY,
    INSULATION,
    LAMPS,
    PRESENCE,
    RESISTANCE,
    SEQUENCE,
    TRIP,
    VOLTAGE,
    Alarm,
    Evidence,
    Kept,
    Measurement,
    Quantity,
    Reading,
    weigh,
)
from evenprobe.testers import Instrument, Kind, kinds
from evenprobe.wiring import CircuitFacts, Terminal
from tests.core.installations import ohms, outlet, read, several, standing, volts

POINT = outlet(circuit=CircuitFacts(20, residual_ma=6))
HEALTHY = (volts("L-N", 120.4), volts("L-PE", 120.5), volts("N-PE", 0.1))
L, N, PE, BOARD_PE = Terminal.L, Terminal.N, Terminal.PE, Terminal.BOARD_PE


def held(kind: Kind, proved: bool | None = True) -> Instrument:
    return Instrument(str(kind), kind, proved=proved)


METER, CLAMP, LAMP_TESTER = held(kinds.MULTIMETER), held(kinds.CLAMP), held(kinds.LAMP_TESTER)
PLUG, DETECTOR = held(kinds.DIGITAL_PLUG_TESTER), held(kinds.NON_CONTACT)
MEGOHMS = held(kinds.INSULATION_TESTER)


def taken(
    quantity: Quantity, from_: Terminal | None, to: Terminal | None, tester: Instrument, **seen: object
) -> Reading:
    how = {name: seen.pop(name) for name in ("device", "test_ma", "input", "dc") if name in seen}
    return Reading("r", Measurement(quantity, from_, to, tester, **how), **seen)


EVERY_QUANTITY = [
    taken(VOLTAGE, L, N, METER, value=120.0),
    taken(VOLTAGE, L, N, held(kinds.TWO_POLE), at_least=50.0, below=120.0),
    taken(RESISTANCE, N, PE, METER, device="open", value=0.3),
    taken(INSULATION, L, PE, MEGOHMS, device="open", value=2e8),
    taken(CURRENT, BOARD_PE, None, CLAMP, value=0.0),
    taken(TRIP, None, None, PLUG, test_ma=6, tripped=False),
    taken(LAMPS, None, None, LAMP_TESTER, lit={"L-N": True, "L-PE": True, "N-PE": False}),
]


@pytest.mark.parametrize(
    "reading", EVERY_QUANTITY, ids=lambda r: f"{r.measurement.quantity} {r.measurement.instrument.kind}"
)
def test_what_counts_of_a_proved_tester_counts_nothing_of_one_that_is_not(reading):
    assert all(isinstance(w, Evidence) for w in weigh(reading, POINT))
    doubtful = held(reading.measurement.instrument.kind, proved=False)
    not_proved = replace(reading, measurement=replace(reading.measurement, instrument=doubtful))
    for reading_of_one in (not_proved, replace(reading, unfit="its calibration is out of date")):
        (kept,) = weigh(reading_of_one, POINT)
        assert isinstance(kept, Kept)
        assert "cannot confirm safe" in kept.why


def test_a_sequence_counts_of_a_proved_tester_and_where_there_are_three_lines():
    point = several("L1 L2 L3 N PE", "230/400")
    indicator = taken(SEQUENCE, None, None, METER, value=1.0)
    (counts,) = weigh(indicator, point)
    assert isinstance(counts, Evidence)
    doubtful = replace(indicator, measurement=replace(indicator.measurement, instrument=replace(METER, proved=False)))
    for reading, where, why in ((doubtful, point, "not proved"), (indicator, POINT, "only three lines")):
        (kept,) = weigh(reading, where)
        assert why in kept.why


@pytest.mark.parametrize(
    ("reading", "why"),
    [
        (taken(VOLTAGE, L, N, METER, value=0.0, dc=True), "DC range shows 0"),
        (taken(VOLTAGE, L, N, DETECTOR, value=0.0), "does not measure volts"),
        (taken(RESISTANCE, N, PE, DETECTOR, device="open", value=0.3), "does not measure ohms"),
        (taken(RESISTANCE, N, PE, METER, value=0.3), "with the device closed"),
        (taken(INSULATION, L, PE, METER, device="open", value=2e8), "no test voltage"),
        (taken(INSULATION, L, PE, MEGOHMS, value=2e8), "the whole board is measured"),
        (taken(CURRENT, BOARD_PE, None, DETECTOR, value=0.0), "does not measure current"),
        (taken(CURRENT, BOARD_PE, None, CLAMP, most=14.0), "what started"),
        (taken(CURRENT, BOARD_PE, None, CLAMP, device="open", value=0.0), "nothing is meant to flow"),
        (taken(PRESENCE, None, None, DETECTOR, alarm=True), "no terminal"),
        (taken(PRESENCE, PE, None, DETECTOR, alarm=False, unfit="its battery is low"), "battery is low"),
        (taken(LAMPS, None, None, LAMP_TESTER, lit={"L-N": False, "L-PE": False, "N-PE": False}), "dark lamp"),
        (taken(TRIP, None, None, PLUG, tripped=False), "current is not known"),
        (taken(TRIP, None, None, PLUG, test_ma=1, tripped=True), "something else tripped it"),
        (taken(TRIP, None, None, PLUG, test_ma=4, tripped=False), "need not trip"),
        (taken(FREQUENCY, L, N, METER, value=60.0), "not used to decide"),
    ],
)
def test_what_says_nothing_of_the_wiring_is_kept_with_why(reading, why):
    (kept,) = weigh(reading, POINT)
    assert isinstance(kept, Kept)
    assert why in kept.why
    assert standing(read(POINT, *HEALTHY, reading)) == standing(read(POINT, *HEALTHY))


@pytest.mark.parametrize("proved", [True, False, None])
def test_an_alarm_counts_whoever_gives_it(proved):
    for detector in (held(kinds.NON_CONTACT, proved), held(kinds.TWO_POLE, proved)):
        alarm = taken(PRESENCE, PE, None, detector, alarm=True)
        assert isinstance(weigh(alarm, POINT)[0], Alarm)
        assert read(POINT, *HEALTHY, alarm).verdict is Verdict.DANGER


@pytest.mark.parametrize("point", range(0, len(points()), 5))
def test_with_no_tester_proved_nothing_is_ever_cleared(point):
    """Whatever is measured each condition stands; alarms may only make it worse."""
    facts = points()[point]
    drawn = draw(facts, np.random.default_rng([31, point]))
    readings = [
        replace(r, measurement=replace(r.measurement, instrument=replace(r.measurement.instrument, proved=False)))
        for r in drawn.readings
        if not r.tripped  # what a device does is seen at the device, whoever pressed
    ]
    result = interpret(facts, readings)
    assert standing(result) == {o.condition.id for o in result.conditions}
    worse = Verdict.UNTESTED if result.direct is None else Verdict.HAZARD
    assert result.verdict in (worse, Verdict.UNTESTED, Verdict.UNCONFIRMED, Verdict.DANGER)


def test_a_display_that_shows_only_over_its_range_says_at_least_that():
    (evidence,) = weigh(ohms("N-PE", None), POINT)
    assert evidence.low == METER.ohms().top
    assert evidence.high > 1e12
