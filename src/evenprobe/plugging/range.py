"""Whether the volts between the contacts are what the thing is made for."""

from collections.abc import Sequence

from evenprobe.limits import Limit
from evenprobe.plugging.check import Check, Result
from evenprobe.plugging.needs import Needs, band_for
from evenprobe.plugging.sentences import VOLTAGE as SAID
from evenprobe.quantities import VOLTAGE, Evidence, Measurement, Reading, weigh_all
from evenprobe.wiring import PointFacts, Terminal

_RESULT = {True: Result.YES, False: Result.NO, None: Result.OPEN}
_DOUBT_SHARE = 0.05
"""A tester that cannot confirm safe still warns when it shows this much more than the band allows."""


def ranges(point: PointFacts, needs: Needs, readings: Sequence[Reading]) -> tuple[Check, ...]:
    """One check for each pair the thing is connected between."""
    return tuple(
        _pair(point, one, other, band_for(volts, point.practice, point.system), readings)
        for one, other, volts in needs.pairs_at(point)
    )


def _pair(point: PointFacts, one: Terminal, other: Terminal, limit: Limit, readings: Sequence[Reading]) -> Check:
    letters = point.practice.letters
    title = f"{letters[one]} to {letters[other]}"
    allowed = f"{limit.band.low:.0f} to {limit.band.high:.0f} V"
    between = [r for r in readings if _is_between(r, one, other)]
    counted = [w for w in weigh_all(between, point) if isinstance(w, Evidence)]
    names = {e.reading.id for e in counted}
    shown = [r.value for r in between if r.id not in names and r.value is not None]
    id_, take = f"range {one}-{other}", Measurement(VOLTAGE, one, other)
    if any(value > limit.band.high * (1 + _DOUBT_SHARE) for value in shown):
        text = str(SAID.say("shown-too-high", shown=max(shown), allowed=allowed))
        return Check(id_, title, Result.NO, text, limit)
    if not counted:
        return Check(id_, title, Result.OPEN, str(SAID.say("not-measured", allowed=allowed)), limit, take)
    results = [_result(limit, e.interval) for e in counted]
    result = next(r for r in (Result.NO, Result.YES, Result.NOTE, Result.OPEN) if r in results)
    text = str(SAID.say(result, shown=_seen(counted[results.index(result)]), allowed=allowed))
    return Check(id_, title, result, text, limit, take if result is Result.OPEN else None)


def _result(limit: Limit, interval: tuple[float, float]) -> Result:
    """Tolerable is worth a note; between that and the limit itself nothing is left to measure."""
    held = limit.band.holds(interval)
    if held is not False or limit.tolerable is None:
        return _RESULT[held]
    return Result.NOTE if limit.tolerable.holds(interval) else Result.NO


def _is_between(reading: Reading, one: Terminal, other: Terminal) -> bool:
    return reading.measurement.setup("input") == Measurement(VOLTAGE, one, other).setup("input")


def _seen(e: Evidence) -> str:
    r = e.reading
    if r.value is not None:
        return f"{r.value:g} V"
    return f"{r.at_least or 0:g} V or more" if r.below is None else f"{r.at_least or 0:g} to {r.below:g} V"
