"""Residual-current devices by their trip, and loads against the device that feeds them.

IEC 61008-1, 61009-1, UL 943 for the trip; IEC 60898-1 for what a start-up current must stay under.
"""

from typing import Literal

from evenprobe.deadtests.accuracy import Accuracy, Shown
from evenprobe.deadtests.judgement import Outcome, Result, held_against, worst
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
HALF_TEST_SHARE = 0.45
"""A tester's half-current test drives at least this share; less than that says nothing by not tripping."""


def residual_current(
    kind: DeviceType, rated_ma: float, test_ma: float, *, tripped: bool, after_ms: Shown | None = None
) -> Outcome:
    """One test of a residual-current device. Currents in milliamperes."""
    stays_in, must_trip_from, half = _expectations(kind, rated_ma)
    if test_ma <= stays_in.band.high:
        return _no_trip_expected(stays_in, half, test_ma, tripped)
    proves = test_ma >= must_trip_from or (kind == "class-a-people" and tripped)
    if not proves:
        text = (
            f"{test_ma:g} mA is below what the device must trip at, {must_trip_from:g} mA: whether it tripped or not "
            f"proves nothing. Use a tester that drives {must_trip_from:g} mA or more."
        )
        return Outcome(Result.INVALID, text, no_trip(must_trip_from, stays_in.source))
    limit = _time_limit(kind, rated_ma, test_ma)
    low, high = limit.band.low, limit.band.high
    computed = {"limit_ms": high, **({"least_ms": low} if low else {})}
    if not tripped:
        text = (
            "It did not trip. The device is faulty, or the test current had no way back to the source: "
            "measure the earth before you blame the device. No protection either way."
        )
        return Outcome(Result.FAIL, text, limit, computed)
    if after_ms is None:
        return Outcome(Result.NOTE, "It tripped; how fast was not measured.", limit, computed)
    result = held_against(limit, after_ms.interval)
    text = {
        Result.PASS: "Tripped in time.",
        Result.BORDERLINE: "The limit lies inside the tester's error: repeat.",
        Result.FAIL: "Too slow: replace the device." if after_ms.value > high else "Too fast for a delayed device.",
    }[result]
    return Outcome(result, text, limit, computed, held=after_ms)


def _expectations(kind: DeviceType, rated_ma: float) -> tuple[Limit, float, float]:
    """Up to what it must stay in, from what it must trip, and the least current whose not tripping says so."""
    if kind == "class-a-people":
        return PEOPLE_NO_TRIP, PEOPLE_TRIP_MA, HALF_TEST_SHARE * 2 * PEOPLE_NO_TRIP_MA
    half = NO_TRIP_SHARE * rated_ma
    return no_trip(half), rated_ma, HALF_TEST_SHARE * rated_ma


def _no_trip_expected(limit: Limit, half: float, test_ma: float, tripped: bool) -> Outcome:
    if tripped:
        return Outcome(
            Result.FAIL,
            "It tripped where it must not: too sensitive, or something leaks already. Unplug and repeat.",
            limit,
        )
    if test_ma < half:
        text = f"No trip at {test_ma:g} mA proves nothing either way: the device need not notice so little."
        return Outcome(Result.INVALID, text, limit)
    return Outcome(Result.PASS, "It stayed in, as it must at this current.", limit)


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
    results, sentences = [], []
    if running is not None:
        share = running.times(100 / rating_a)
        computed["share_percent"] = share.value
        results.append(held_against(limit, share.interval))
        says = {Result.PASS: "within", Result.FAIL: "above", Result.BORDERLINE: "at"}[results[-1]]
        for_long = " for three hours and more" if limit.id == "load.continuous" else ""
        sentences.append(f"{share.value:.0f} % of the rating, {says} the {limit.band.high:g} % allowed{for_long}.")
    if start is not None:
        multiple = start.times(1 / rating_a)
        computed["start_multiple"] = multiple.value
        if curve is None:
            results.append(Result.NOTE)
            sentences.append(
                f"Starts at {multiple.value:.1f} times the rating; which curve the device has is not known."
            )
        else:
            limit_start, trips = start_multiple(curve), INSTANTANEOUS[curve]
            results.append(held_against(limit_start, multiple.interval))
            if results[-1] is not Result.PASS:
                limit = limit_start if results[0] is Result.PASS or running is None else limit
            says = "will trip it" if multiple.value >= trips.high else "may trip it"
            says = "stays under what may trip it" if results[-1] is Result.PASS else says
            sentences.append(
                f"Starts at {multiple.value:.1f} times the rating, {says} ({trips.low:g} to {trips.high:g})."
            )
    return Outcome(worst(results), " ".join(sentences), limit, computed)


def frequency(hertz: float, system: SupplySystem, practice: Practice, accuracy: Accuracy) -> Outcome:
    """The supply's frequency."""
    limit = limit_for("frequency.band", practice, system)
    result = held_against(limit, accuracy.shows(hertz).interval)
    text = {Result.PASS: "In the band.", Result.FAIL: "Out of the band.", Result.BORDERLINE: "At the edge of the band."}
    return Outcome(result, text[result], limit)
