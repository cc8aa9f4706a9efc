"""Residual-current devices by their trip, and loads against the device that feeds them.

IEC 61008-1, 61009-1, UL 943 for the trip; IEC 60898-1 for what a start-up current must stay under.
"""

from typing import Literal

from evenprobe.deadtests.accuracy import Accuracy, Shown
from evenprobe.deadtests.judgement import Outcome, Result, held_against, worst
from evenprobe.deadtests.sentences import FOR_LONG, JUDGED
from evenprobe.limits import Limit, limit_for
from evenprobe.limits.protective_devices import (
    DELAYED_MS,
    GENERAL_MS,
    INSTANTANEOUS,
    NO_TRIP_SHARE,
    PEOPLE_NO_TRIP,
    PEOPLE_NO_TRIP_MA,
    PEOPLE_TRIP_MA,
    load_share,
    no_trip,
    people_trip_time,
    start_multiple,
    trip_time,
)
from evenprobe.practices import Practice
from evenprobe.supplies import SupplySystem

DeviceType = Literal["general", "S", "class-a-people"]
_HALF_TEST_SHARE = 0.45
"""A tester's half-current test drives at least this share; less than that says nothing by not tripping."""


def residual_current(
    kind: DeviceType,
    rated_ma: float,
    test_ma: float,
    *,
    tripped: bool,
    practice: Practice,
    after_ms: Shown | None = None,
) -> Outcome:
    """One test of a residual-current device. Currents in milliamperes. `practice`: whose words are used."""
    stays_in, must_trip_from, half = _expectations(kind, rated_ma)
    if test_ma <= stays_in.band.high:
        return _no_trip_expected(stays_in, half, test_ma, tripped)
    proves = test_ma >= must_trip_from or (kind == "class-a-people" and tripped)
    if not proves:
        said = JUDGED.say("trip.below", test=test_ma, least=must_trip_from)
        return Outcome(Result.INVALID, [said], no_trip(must_trip_from, stays_in.source))
    limit = _time_limit(kind, rated_ma, test_ma)
    low, high = limit.band.low, limit.band.high
    computed = {"limit_ms": high, **({"least_ms": low} if low else {})}
    if not tripped:
        said = JUDGED.say("trip.missing", **practice.named)
        return Outcome(Result.FAIL, [said], limit, computed)
    if after_ms is None:
        return Outcome(Result.NOTE, [JUDGED.say("trip.not-timed")], limit, computed)
    result = held_against(limit, after_ms.interval)
    too = "slow" if after_ms.value > high else "fast"
    said = JUDGED.say(f"trip.{too}" if result is Result.FAIL else f"trip.{result}")
    return Outcome(result, [said], limit, computed, held=after_ms)


def _expectations(kind: DeviceType, rated_ma: float) -> tuple[Limit, float, float]:
    """Up to what it must stay in, from what it must trip, and the least current whose not tripping says so."""
    if kind == "class-a-people":
        return PEOPLE_NO_TRIP, PEOPLE_TRIP_MA, _HALF_TEST_SHARE * 2 * PEOPLE_NO_TRIP_MA
    half = NO_TRIP_SHARE * rated_ma
    return no_trip(half), rated_ma, _HALF_TEST_SHARE * rated_ma


def _no_trip_expected(limit: Limit, half: float, test_ma: float, tripped: bool) -> Outcome:
    if tripped:
        return Outcome(Result.FAIL, [JUDGED.say("trip.too-sensitive")], limit)
    if test_ma < half:
        return Outcome(Result.INVALID, [JUDGED.say("trip.too-little", test=test_ma)], limit)
    return Outcome(Result.PASS, [JUDGED.say("trip.stayed-in")], limit)


def _time_limit(kind: DeviceType, rated_ma: float, test_ma: float) -> Limit:
    if kind == "class-a-people":
        return people_trip_time(test_ma)
    return trip_time(DELAYED_MS if kind == "S" else GENERAL_MS, test_ma / rated_ma)


def load(
    rating_a: float,
    running: Shown | None,
    start: Shown | None,
    curve: str | None,
    practice: Practice,
    *,
    continuous: bool = False,
) -> Outcome:
    """Running and start-up current against the device, in amperes."""
    limit = load_share(practice, continuous=continuous)
    computed: dict[str, float | None] = {"share_percent": None, "start_multiple": None}
    results, said = [], []
    if running is not None:
        share = running.times(100 / rating_a)
        computed["share_percent"] = share.value
        results.append(held_against(limit, share.interval))
        for_long = FOR_LONG if limit.id == "load.continuous" else ""
        about = {"share": share.value, "allowed": limit.band.high, "for_long": for_long}
        said.append(JUDGED.say(f"load.{results[-1]}", **about))
    if start is not None:
        multiple = start.times(1 / rating_a)
        computed["start_multiple"] = multiple.value
        if curve is None:
            results.append(Result.NOTE)
            said.append(JUDGED.say("load.start-no-curve", times=multiple.value))
        else:
            limit_start, trips = start_multiple(curve), INSTANTANEOUS[curve]
            results.append(held_against(limit_start, multiple.interval))
            if results[-1] is not Result.PASS:
                limit = limit_start if results[0] is Result.PASS or running is None else limit
            it = "will" if multiple.value >= trips.high else "may"
            it = "under" if results[-1] is Result.PASS else it
            said.append(JUDGED.say(f"load.start-{it}", times=multiple.value, low=trips.low, high=trips.high))
    return Outcome(worst(results), said, limit, computed)


def frequency(hertz: float, system: SupplySystem, practice: Practice, accuracy: Accuracy) -> Outcome:
    """The supply's frequency."""
    limit = limit_for("frequency.band", practice, system)
    result = held_against(limit, accuracy.shows(hertz).interval)
    return Outcome(result, [JUDGED.say(f"frequency.{result}")], limit)
