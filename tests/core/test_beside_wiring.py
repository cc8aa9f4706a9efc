"""Three questions, three answers: the wiring's verdict, insulation and protection."""

from dataclasses import replace

import pytest

from evenprobe.interpretation import Verdict, interpret
from evenprobe.interpretation.findings import State
from evenprobe.quantities import INSULATION, RESISTANCE, TRIP, Measurement, Reading
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from tests.core.installations import continental, ohms, outlet, read, standing, volts

PLUG = Instrument("plug", kinds.DIGITAL_PLUG_TESTER, proved=True)
MEGGED = Instrument("insulation", kinds.INSULATION_TESTER, proved=True)
PROTECTED = replace(outlet(), circuit=replace(outlet().circuit, residual_ma=6))
END_TO_END = Measurement(RESISTANCE, Terminal.PE, Terminal.BOARD_PE, device="open")
SOUND = (volts("L-N", 119.8), volts("L-PE", 119.9), volts("N-PE", 0.1))


def trip(tripped: bool) -> Reading:
    return Reading("trip", Measurement(TRIP, Terminal.L, Terminal.PE, PLUG, test_ma=6), tripped=tripped)


def insulation(mohm: float) -> Reading:
    measurement = Measurement(INSULATION, Terminal.L, Terminal.PE, MEGGED, device="open", neutral="lifted")
    return Reading("megohms", measurement, value=mohm * 1e6, test_volts=500)


def test_what_nobody_tested_is_said_and_a_device_nobody_recorded_is_not_there():
    found = read(outlet(), *SOUND)
    assert (found.insulation.state, found.protection.state) == ("not-tested", "not-present")
    assert read(PROTECTED, *SOUND).protection.state == "not-tested"
    assert "GFCI" in found.protection.why


@pytest.mark.parametrize(("mohm", "state"), [(80, "pass"), (1.02, "borderline"), (0.3, "fail")])
def test_insulation_is_what_its_worst_test_came_to(mohm, state):
    found = read(outlet(), *SOUND, insulation(80), replace(insulation(mohm), id="worst"))
    assert found.insulation.state == state
    assert found.insulation.reading in ("megohms", "worst")


def test_a_trip_passes_and_none_fails_and_is_a_hazard_by_itself():
    passed, failed = read(PROTECTED, *SOUND, trip(True)), read(PROTECTED, *SOUND, trip(False))
    assert (passed.protection.state, failed.protection.state) == ("pass", "fail")
    assert passed.protection.reading == failed.protection.reading == "trip"
    assert failed.verdict in (Verdict.HAZARD, Verdict.DANGER)


def test_a_device_nobody_tripped_keeps_no_wiring_from_safe():
    loaded = {"load_here_a": 10.0, "nothing_else_on": True}
    chain = (
        *SOUND, volts("PE-REF", 0.1), volts("L-PE", 119.8, input="low-z"), ohms("N-PE", 0.25),
        volts("N-PE", 1.2, **loaded), volts("N-PE", 1.2, load_elsewhere_a=10.0),
        volts("L-N", 119.8, nothing_else_on=True), volts("L-N", 117.3, **loaded),
        Reading("lifted", replace(END_TO_END, neutral="lifted"), 0.14),
    )  # fmt: skip
    found = interpret(PROTECTED, chain)
    assert "residual-device-fails" in standing(found)
    plugged_in = interpret(PROTECTED, chain, [replace(PLUG, test_ma=6.0)])
    assert TRIP in {t.measurement.quantity for t in plugged_in.next_tests}
    assert found.verdict in (Verdict.SAFE, Verdict.CORRECT)
    assert found.protection.state == "not-tested"


@pytest.mark.parametrize(
    ("after", "state"), [(None, State.PASS), (24.0, State.PASS), (300.0, State.BORDERLINE), (400.0, State.FAIL)]
)
def test_a_trip_that_was_timed_is_in_time_or_not(after, state):
    """IEC 61008-1: at its rated current a general device trips within 300 ms."""
    point = continental()
    protected = replace(point, circuit=replace(point.circuit, residual_ma=30))
    came = Reading("t", Measurement(TRIP, Terminal.L, Terminal.PE, PLUG, test_ma=30.0), tripped=True, after_ms=after)
    protection = read(protected, came).protection
    assert protection.state is state
    assert (after is None) or f"{after:g} ms" in protection.why
