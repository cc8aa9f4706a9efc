"""Insulation of a circuit across visits, all at 20 °C: a fall by half matters more than passing.

On a log scale by date, as shares of the picture's width and height, so that whoever draws it needs no arithmetic.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from math import ceil, floor, log10

from evenprobe.limits.dead_tests import WATCH_TREND, InsulationRule


@dataclass(frozen=True)
class Visit:
    """One value of one pair, in megohms at 20 °C. `beyond`: it was at least that."""

    at: datetime
    mohm_20c: float
    beyond: bool = False


@dataclass(frozen=True)
class Mark:
    """A visit's place in the picture. `halved`: less than half of the visit before."""

    visit: Visit
    across: float
    up: float
    halved: bool


@dataclass(frozen=True)
class History:
    """`limit_up`: where the limit's line lies; `ticks`: (megohms, up)."""

    marks: tuple[Mark, ...]
    limit_mohm: float
    limit_up: float
    ticks: tuple[tuple[float, float], ...]

    @property
    def halved(self) -> bool:
        """Whether the last visit found less than half of the one before."""
        return bool(self.marks) and self.marks[-1].halved


def history(visits: Sequence[Visit], rule: InsulationRule) -> History:
    """Visits in order of time; at least one decade is shown, the limit always in the picture."""
    ordered = sorted(visits, key=lambda v: v.at)
    values = [max(v.mohm_20c, 1e-3) for v in ordered] + [rule.least_mohm]
    low, high = floor(log10(min(values)) - 0.2), ceil(log10(max(values)) + 0.2)

    def up(mohm: float) -> float:
        return (log10(max(mohm, 1e-3)) - low) / (high - low)

    start = ordered[0].at if ordered else None
    span = (ordered[-1].at - ordered[0].at).total_seconds() if len(ordered) > 1 else 0.0
    marks = []
    for i, visit in enumerate(ordered):
        across = (visit.at - start).total_seconds() / span if start and span else 0.5
        before = ordered[i - 1] if i else None
        halved = before is not None and not visit.beyond and visit.mohm_20c < WATCH_TREND.band.low * before.mohm_20c
        marks.append(Mark(visit, across, up(visit.mohm_20c), halved))
    ticks = tuple((10.0**decade, up(10.0**decade)) for decade in range(low, high + 1))
    return History(tuple(marks), rule.least_mohm, up(rule.least_mohm), ticks)
