"""Values of one quantity by day, as shares of a picture's width and height, so that whoever draws needs no arithmetic.

What has halved, or doubled, since the visit before is worth a look though it passes: a trend tells of damp, corrosion
and loosening joints before a limit does (IEEE 43, clause 12, on comparing with earlier tests).
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import groupby
from math import ceil, floor, inf, isfinite, log10
from typing import Literal

from evenprobe.deadtests.history import History
from evenprobe.limits.dead_tests import WATCH_TREND

Worse = Literal["less", "more", "neither"]
_PAD = 0.12
"""Of the span of what is shown, that is left free above and below."""
_LEAST_PAD = 1e-3
_TICKS = 3


@dataclass(frozen=True)
class Value:
    """One value. `key`: of which series. `low`, `high`: its limits. `worse`: which way it is worse."""

    key: str
    title: str
    unit: str
    at: datetime
    value: float
    low: float = -inf
    high: float = inf
    worse: Worse = "neither"


@dataclass(frozen=True)
class Mark:
    """A visit's place. `jumped`: less than half, or more than twice, of the visit before, whichever is worse."""

    at: datetime
    value: float
    across: float
    up: float
    jumped: bool


@dataclass(frozen=True)
class Series:
    """`limits`, `ticks`: (value, up)."""

    title: str
    unit: str
    marks: tuple[Mark, ...]
    limits: tuple[tuple[float, float], ...]
    ticks: tuple[tuple[float, float], ...]

    @property
    def jumped(self) -> bool:
        """Whether the last visit did."""
        return self.marks[-1].jumped


def series(values: Iterable[Value]) -> list[Series]:
    """A series for each quantity that was measured on two days or more, the last value of each day.

    Parameters
    ----------
    values : iterable of Value
        In any order.

    Returns
    -------
    list of Series
        In the order in which each was first measured.

    Examples
    --------
    >>> days = [datetime(2026, month, 2) for month in (1, 6, 11)]
    >>> risen = [Value("i", "N to PE", "V", on, volts, high=2.0, worse="more")
    ...          for on, volts in zip(days, (0.4, 0.5, 1.2))]
    >>> [mark.jumped for mark in series(risen)[0].marks]
    [False, False, True]
    """
    ordered = sorted(values, key=lambda value: value.at)
    keys = dict.fromkeys(value.key for value in ordered)
    found = []
    for key in keys:
        own = [value for value in ordered if value.key == key]
        by_day = [list(of_day)[-1] for _, of_day in groupby(own, key=lambda value: value.at.date())]
        if len(by_day) > 1:
            found.append(_one(by_day))
    return found


def of_insulation(title: str, found: History) -> Series:
    """Insulation across visits, which has a picture of its own: on a log scale, as it falls.

    Parameters
    ----------
    title
        What it is called beside the others.
    found
        Of one pair, at 20 °C.

    Returns
    -------
    Series
        The same places.
    """
    marks = tuple(Mark(m.visit.at, m.visit.mohm_20c, m.across, m.up, m.halved) for m in found.marks)
    return Series(title, "Mohm", marks, ((found.limit_mohm, found.limit_up),), found.ticks)


def _one(values: Sequence[Value]) -> Series:
    last = values[-1]
    limits = tuple(dict.fromkeys(limit for limit in (last.low, last.high) if isfinite(limit) and limit > 0))
    scale = _Scale([*(value.value for value in values), *limits])
    start, span = values[0].at, (values[-1].at - values[0].at).total_seconds()
    marks = tuple(
        Mark(v.at, v.value, (v.at - start).total_seconds() / span, scale.up(v.value), _jumped(v, before))
        for v, before in zip(values, (None, *values), strict=False)
    )
    return Series(last.title, last.unit, marks, tuple((limit, scale.up(limit)) for limit in limits), scale.ticks)


def _jumped(value: Value, before: Value | None) -> bool:
    if before is None or value.worse == "neither":
        return False
    share = WATCH_TREND.band.low
    if value.worse == "less":
        return value.value < share * before.value
    return value.value > before.value / share


class _Scale:
    """An even scale round the values and their limits."""

    def __init__(self, shown: Sequence[float]) -> None:
        low, high = min(shown), max(shown)
        pad = _PAD * (high - low) or max(abs(high) * _PAD, _LEAST_PAD)
        self._low, self._high = low - pad, high + pad

    def up(self, value: float) -> float:
        return (value - self._low) / (self._high - self._low)

    @property
    def ticks(self) -> tuple[tuple[float, float], ...]:
        step = _round_step((self._high - self._low) / _TICKS)
        first = ceil(self._low / step)
        found = [round(step * n, 10) for n in range(first, floor(self._high / step) + 1)]
        return tuple((value, self.up(value)) for value in found)


def _round_step(rough: float) -> float:
    """1, 2 or 5 of a decade."""
    decade = 10.0 ** floor(log10(rough))
    return next(step * decade for step in (1.0, 2.0, 5.0, 10.0) if step * decade >= rough)
