"""Evidence rounded outward: what it allows is allowed then too, and nearly the same readings ask the same question.

What cannot meet the rounded readings meets the exact ones nowhere. Whether it can follows from the rounded ones alone,
so it is worked out once for all readings that round to them: of the next outlet, and of the next turn of the supply.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import replace

from evenprobe.interpretation.movement import moment_of
from evenprobe.quantities import Evidence

_AN_OCTAVE, _AN_OCTAVE_ALONE = 32, 64
"""Values in a row; a reading alone is asked about in smaller steps, for two are seldom of the same step both."""
_BETWEEN_S = 60.0
_FAR_APART_S = 120.0
"""More time than this between two readings says no more; see `movement`."""


def rounded_outward(evidence: Sequence[Evidence]) -> tuple[Evidence, ...]:
    """The same readings of a little more, so that they allow whatever the exact ones do.

    Each end goes to the next of a row of values a tolerance apart, or where that is closer so many an octave, and so
    does a tolerance; times between readings go to the next minute. Readings of one moment remain of one moment.

    >>> from evenprobe.quantities import VOLTAGE, Evidence, Measurement, Reading
    >>> from evenprobe.wiring import Terminal
    >>> volts = Reading("r1", Measurement(VOLTAGE, Terminal.L, Terminal.N), value=231.3)
    >>> rounded, = rounded_outward([Evidence(volts, 231.3, 231.3, 1.0, 0.01, "meter")])
    >>> rounded.low, rounded.high, rounded.tolerance
    (229.72276160039772, 232.22427846405105, 1.0)
    """
    at = _times(evidence)
    an_octave = _AN_OCTAVE if len(evidence) > 1 else _AN_OCTAVE_ALONE
    found: list[Evidence] = []
    for e in evidence:
        tolerance = _next_tolerance(e.tolerance)
        found.append(
            replace(
                e,
                reading=replace(e.reading, at=at.get(e.reading.at)),
                low=_to_the_next(e.low, tolerance, an_octave, math.floor),
                high=_to_the_next(e.high, tolerance, an_octave, math.ceil),
                tolerance=tolerance,
            )
        )
    return tuple(found)


def whenever(evidence: Sequence[Evidence]) -> tuple[Evidence, ...]:
    """The same readings as if the first of them had been taken at zero: only the time between matters."""
    first = min((e.reading.at for e in evidence if e.reading.at is not None), default=0.0)
    return tuple(
        e if e.reading.at is None else replace(e, reading=replace(e.reading, at=e.reading.at - first)) for e in evidence
    )


def whoever(evidence: Sequence[Evidence]) -> list[Evidence]:
    """The same readings under names by their order; those of one moment under one."""
    names: dict[float | str, str] = {}
    for e in evidence:
        names.setdefault(moment_of(e), f"m{len(names)}")
    return [replace(e, reading=replace(e.reading, id=names[moment_of(e)])) for e in evidence]


def _times(evidence: Sequence[Evidence]) -> dict[float | None, float]:
    """What each time on record becomes: from the one before it by whole minutes, as far as that matters."""
    found: dict[float | None, float] = {}
    before, then = 0.0, 0.0
    for time in sorted({e.reading.at for e in evidence if e.reading.at is not None}):
        between = math.ceil((time - before) / _BETWEEN_S) * _BETWEEN_S if found else 0.0
        then += min(between, _FAR_APART_S)
        found[time] = then
        before = time
    return found


def _next_tolerance(tolerance: float) -> float:
    return _in_octaves(tolerance, _AN_OCTAVE, math.ceil) if tolerance > 0 and math.isfinite(tolerance) else tolerance


def _to_the_next(value: float, apart: float, an_octave: int, way: Callable[[float], int]) -> float:
    if value <= 0 or not math.isfinite(value) or apart <= 0:
        return value
    if value * (2 ** (1 / an_octave) - 1) > apart:
        return _in_octaves(value, an_octave, way)
    return way(value / apart) * apart


def _in_octaves(value: float, an_octave: int, way: Callable[[float], int]) -> float:
    return float(2.0 ** (way(math.log2(value) * an_octave) / an_octave))
