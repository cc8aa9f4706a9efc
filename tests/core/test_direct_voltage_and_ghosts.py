"""Direct voltage where none belongs, and ghosts of a high impedance that a low one brings to nothing."""

from dataclasses import replace

import pytest

from evenprobe.conditions import Severity
from evenprobe.interpretation import JudgementResult, Verdict
from evenprobe.plugging import Answer, Needs, may_plug_in
from evenprobe.quantities import PRESENCE, VOLTAGE, Direct, Evidence, Kept, Measurement, Reading, weigh
from evenprobe.testers import TYPED, Instrument, kinds
from evenprobe.wiring import PointKind, Terminal
from tests.core.installations import outlet, read, volts

HEALTHY = (volts("L-N", 119.8), volts("L-PE", 119.9), volts("N-PE", 0.2), volts("PE-REF", 0.2))
CASED = outlet(kind=PointKind.FIXED)
CASED = replace(CASED, terminals=(*CASED.terminals, Terminal.CASE))


def direct(pair: str, value: float, **how: object) -> Reading:
    return volts(pair, value, dc=True, **how)


@pytest.mark.parametrize("value", [160.0, -160.0, 121.0])
def test_direct_voltage_on_metalwork_above_its_touch_limit_is_danger(value):
    for readings in ((direct("PE-REF", value),), (*HEALTHY, direct("PE-REF", value))):
        result = read(outlet(), *readings)
        assert result.verdict is Verdict.DANGER
        assert f"{abs(value):g} V direct" in result.summary
        assert "switch off every source" in result.summary


@pytest.mark.parametrize(("pair", "severity"), [("PE-REF", Severity.DANGER), ("L-N", Severity.HAZARD)])
def test_it_stands_among_what_can_be_true_whatever_else_fell(pair, severity):
    """It was measured, so it stands even where no wiring explains the rest; without it nobody speaks of it."""
    for readings in ((), HEALTHY, (*HEALTHY, volts("L-N", 300.0, id="slip"))):
        result = read(outlet(), *readings, direct(pair, 160.0))
        first = result.conditions[0]
        assert (first.condition.id, first.standing, first.severity) == ("direct-voltage-present", True, severity)
        assert sum(o.likelihood for o in result.conditions) == pytest.approx(1.0)
        assert "direct-voltage-present" not in {o.condition.id for o in read(outlet(), *readings).conditions}


def test_it_is_judged_against_the_direct_limit_and_not_the_alternating_one():
    result = read(outlet(), direct("PE-REF", 60.0), direct("PE-REF", 160.0, id="more"))
    judged = {j.reading: (j.limit.id, j.limit.band.high, j.result) for j in result.judgements}
    assert set(judged.values()) == {
        ("touch.limit.dc", 120.0, JudgementResult.PASS),
        ("touch.limit.dc", 120.0, JudgementResult.FAIL),
    }


@pytest.mark.parametrize("pair", ["L-N", "PE-REF", "N-PE"])
def test_direct_voltage_that_is_clearly_there_is_told_and_nothing_is_cleared_over_it(pair):
    result = read(outlet(), *HEALTHY, direct(pair, 24.0))
    assert result.verdict is Verdict.HAZARD
    assert "24 V direct" in result.summary
    (told,) = result.not_counted
    assert "says nothing" not in told.why
    assert "Treat as live" in told.why


def test_an_offset_of_a_dc_range_says_nothing():
    before = read(outlet(), *HEALTHY)
    for offset in (0.0, 0.9, -0.9, 1.2):
        after = read(outlet(), *HEALTHY, direct("L-N", offset))
        assert after.verdict is before.verdict
        assert "shows 0" in after.not_counted[0].why


@pytest.mark.parametrize("how", [{"proved": False}, {"unfit": "its calibration is out of date"}])
def test_any_tester_may_raise_it_and_only_a_fit_and_proved_one_takes_it_back(how):
    doubtful = Instrument("m", kinds.MULTIMETER, proved=how.get("proved", True))
    raised = replace(direct("PE-REF", 160.0, instrument=doubtful), unfit=how.get("unfit", ""))
    assert read(outlet(), raised).verdict is Verdict.DANGER
    low = replace(direct("PE-REF", 0.0, id="low", instrument=doubtful, input="low-z"), unfit=how.get("unfit", ""))
    assert read(outlet(), direct("PE-REF", 160.0), low).verdict is Verdict.DANGER
    proved = direct("PE-REF", 0.0, id="low", input="low-z")
    assert read(outlet(), direct("PE-REF", 160.0), proved).verdict is not Verdict.DANGER


def test_a_lamp_step_of_direct_voltage_is_told_too():
    stepped = Instrument("t", kinds.TWO_POLE, proved=True)
    at_metal = Measurement(VOLTAGE, Terminal.PE, Terminal.REF, stepped, dc=True)
    assert isinstance(weigh(Reading("r", at_metal, at_least=120.0, below=230.0), outlet())[0], Direct)
    assert isinstance(weigh(Reading("r", at_metal, below=12.0), outlet())[0], Kept)
    assert read(outlet(), Reading("r", at_metal, at_least=120.0, below=230.0)).verdict is Verdict.DANGER


def test_nothing_is_plugged_in_where_a_direct_voltage_stands():
    readings = (*HEALTHY, direct("L-N", 160.0))
    found = read(outlet(), *readings)
    answer = may_plug_in(outlet(), readings, Needs(1, 5.0, 120.0), found)
    assert answer.answer is Answer.DO_NOT
    assert "direct" in answer.says


def test_a_ghost_on_the_earth_is_answered_at_the_same_place_by_low_impedance():
    ghost = volts("PE-REF", 61.0)
    seen = (volts("L-N", 120.4), volts("L-PE", 62.0), volts("N-PE", 58.0), ghost)
    assert read(outlet(), *seen).verdict is Verdict.DANGER
    collapsed = read(outlet(), *seen, volts("PE-REF", 0.4, input="low-z"))
    assert collapsed.verdict is Verdict.HAZARD
    assert "open-earth" in {o.condition.id for o in collapsed.conditions if o.standing}


@pytest.mark.parametrize(
    "answer",
    [
        volts("PE-REF", 0.4, id="same impedance"),
        volts("PE-REF", 55.0, input="low-z"),
        volts("PE-REF", 0.4, input="low-z", device="open"),
        volts("N-REF", 0.4, input="low-z"),
        volts("CASE-REF", 0.4, input="low-z"),
        volts("PE-REF", 0.4, input="low-z", instrument=Instrument("m", kinds.MULTIMETER, proved=False)),
    ],
    ids=lambda r: r.id,
)
def test_no_other_reading_answers_it(answer):
    assert read(CASED, volts("PE-REF", 61.0), answer).verdict is Verdict.DANGER


def test_what_low_impedance_itself_shows_is_no_ghost():
    shown = volts("PE-REF", 80.0, input="low-z")
    assert read(outlet(), shown, volts("PE-REF", 0.2, input="low-z", id="again")).verdict is Verdict.DANGER


def test_an_alarm_at_metalwork_is_not_answered_with_the_device_open():
    detector = Instrument("d", kinds.NON_CONTACT, proved=True)
    alarm = Reading("a", Measurement(PRESENCE, Terminal.PE, None, detector), alarm=True)
    assert read(outlet(), alarm, volts("PE-REF", 0.0, device="open")).verdict is Verdict.DANGER
    assert read(outlet(), alarm, volts("PE-REF", 0.0)).verdict is not Verdict.DANGER


def test_a_meter_that_has_no_low_impedance_does_not_answer_by_saying_so():
    lamps = Instrument("p", kinds.TWO_POLE, proved=True)
    (e,) = weigh(volts("PE-REF", 0.4, input="low-z", instrument=lamps), outlet())
    assert isinstance(e, Evidence)
    assert e.measurement.instrument is not TYPED
    assert read(outlet(), volts("PE-REF", 61.0), e.reading).verdict is Verdict.DANGER
