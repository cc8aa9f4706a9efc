"""The quick set of a point, and what a round's stop makes of what was read."""

from dataclasses import replace

import pytest

from evenprobe.interpretation import Verdict
from evenprobe.quantities import LAMPS, TRIP, VOLTAGE, Measurement, Reading
from evenprobe.rounds import StopState, quick_set, stop_of
from evenprobe.testers import TYPED, Instrument, kinds
from evenprobe.wiring import CircuitFacts, Terminal
from tests.core.installations import outlet, several

ONE_LINE = outlet()
PROTECTED = replace(ONE_LINE, circuit=CircuitFacts(rating_a=20, residual_ma=6))
THREE = several("L1 L2 L3 N PE", "230/400")
LAMP_TESTER = Instrument("p1", kinds.LAMP_TESTER, proved=True)
PLUG = Instrument("p2", kinds.DIGITAL_PLUG_TESTER, proved=True, test_ma=7)
METER = Instrument("m1", kinds.MULTIMETER, proved=True)


def read_all(point, tester, **changes):
    """Every measurement of a tester's quick set at a point, whatever it shows."""
    return [
        Reading(f"r{n}", m, value=1.0, tripped=True, lit={"L-N": True}, **changes)
        for n, m in enumerate(quick_set(point, tester))
    ]


@pytest.mark.parametrize(("point", "pairs"), [(ONE_LINE, 3), (THREE, 10)])
def test_a_meter_s_quick_set_is_every_pair_of_contacts(point, pairs):
    found = quick_set(point, METER)
    assert len({frozenset((m.from_, m.to)) for m in found}) == len(found) == pairs


def test_a_plug_tester_adds_a_trip_only_where_its_button_must_trip_the_device():
    assert [m.quantity for m in quick_set(ONE_LINE, LAMP_TESTER)] == [LAMPS]
    assert [m.quantity for m in quick_set(PROTECTED, PLUG)] == [*[VOLTAGE] * 3, TRIP]
    less_sensitive = replace(ONE_LINE, circuit=CircuitFacts(rating_a=20, residual_ma=30))
    assert TRIP not in {m.quantity for m in quick_set(less_sensitive, PLUG)}
    assert quick_set(THREE, LAMP_TESTER) == quick_set(THREE, PLUG) == (), "it has no contacts there"


def test_a_complete_set_is_a_quick_check_and_a_full_one_once_nothing_that_hurts_is_open():
    whole = read_all(ONE_LINE, METER)
    assert stop_of(ONE_LINE, METER, [], Verdict.UNTESTED).state is StopState.LEFT
    assert stop_of(ONE_LINE, METER, whole[1:], Verdict.UNCONFIRMED).state is StopState.BEGUN
    for verdict in Verdict:
        decided = verdict not in (Verdict.UNTESTED, Verdict.CONTRADICTORY, Verdict.UNCONFIRMED)
        expected = StopState.FULL if decided else StopState.QUICK
        assert stop_of(ONE_LINE, METER, whole, verdict).state is expected


def test_any_fit_tester_s_set_will_do_whichever_probe_was_where():
    turned = [
        replace(r, measurement=replace(r.measurement, from_=r.measurement.to, to=r.measurement.from_))
        for r in read_all(ONE_LINE, METER)
    ]
    assert stop_of(ONE_LINE, LAMP_TESTER, turned, Verdict.UNCONFIRMED).state is StopState.QUICK


@pytest.mark.parametrize("tester", [METER, LAMP_TESTER])
def test_what_clears_nothing_is_no_check(tester):
    for changes in ({"unfit": "damaged"}, {}):
        held = tester if changes else replace(tester, proved=False)
        assert (
            stop_of(ONE_LINE, held, read_all(ONE_LINE, held, **changes), Verdict.UNCONFIRMED).state is StopState.BEGUN
        )


@pytest.mark.parametrize("changes", [{"load_here_a": 10.0}, {"device": "open"}])
def test_only_what_is_read_as_found_is_of_the_quick_set(changes):
    loaded = Reading("x", Measurement(VOLTAGE, Terminal.L, Terminal.N, TYPED, **changes), value=119.0)
    _, *others = read_all(ONE_LINE, METER)
    assert stop_of(ONE_LINE, METER, [loaded, *others], Verdict.UNCONFIRMED).state is StopState.BEGUN


def test_what_was_skipped_and_measured_after_all_is_no_longer_skipped():
    assert stop_of(ONE_LINE, METER, [], Verdict.UNTESTED, skipped=True).state is StopState.SKIPPED
    whole = read_all(ONE_LINE, METER)
    assert stop_of(ONE_LINE, METER, whole, Verdict.UNCONFIRMED, skipped=True).state is StopState.QUICK


def test_no_trip_is_asked_for_where_metalwork_is_live():
    *volts, _ = read_all(PROTECTED, PLUG)
    assert stop_of(PROTECTED, PLUG, volts, Verdict.UNCONFIRMED).state is StopState.BEGUN
    assert stop_of(PROTECTED, PLUG, volts, Verdict.DANGER).state is StopState.FULL
