"""How long a work takes: as long as it took last time here, else by the house table."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from statistics import median

from evenprobe.planning.work import WORKS, Work

_LAST = 3
"""Of earlier times, how many are looked at: what took long years ago was another installation."""


@dataclass(frozen=True)
class Earlier:
    """A time before that the same work was done on the same circuit."""

    on: date
    minutes: float


@dataclass(frozen=True)
class Estimate:
    """`since`: the latest of the earlier times it is made of; None where it is the house table's."""

    minutes: float
    since: date | None


def estimate(work: Work, *, sources: int, points: int, pairs: int, earlier: Sequence[Earlier]) -> Estimate:
    """Minutes that a work will take.

    Parameters
    ----------
    work
        Which.
    sources, points, pairs
        How many sources the circuit has, how many points, and how many pairs of contacts the points have together.
    earlier
        How long it took before; the median of the last three counts.

    Returns
    -------
    Estimate
        Minutes, and since when they are known.

    Examples
    --------
    >>> estimate(Work.ISOLATE, sources=1, points=2, pairs=6, earlier=()).minutes
    8.9
    >>> before = (Earlier(date(2026, 5, 4), 12.0), Earlier(date(2026, 11, 2), 16.0))
    >>> estimate(Work.ISOLATE, sources=1, points=2, pairs=6, earlier=before)
    Estimate(minutes=14.0, since=datetime.date(2026, 11, 2))
    """
    last = sorted(earlier, key=lambda one: one.on)[-_LAST:]
    if last:
        return Estimate(median(one.minutes for one in last), last[-1].on)
    row = WORKS[work]
    return Estimate(row.base + row.a_source * sources + row.a_point * points + row.a_pair * pairs, None)
