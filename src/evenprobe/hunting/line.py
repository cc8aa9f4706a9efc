"""The plan that takes the fewest minutes on a run without branches, by dynamic programming over all of them.

What is left is what lies between two places that were looked at, and one stands at one of the two: F(a, b, at) is
the least of going to any k between, looking there, and then F(a, k, at k) or F(k, b, at k), each as likely as it is
(Bellman; the alphabetic search tree of Knuth, Acta Informatica 1, 1971, with costs of walking).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[Any]


@dataclass(frozen=True)
class Stop:
    """Somewhere to look.

    Parameters
    ----------
    at_m
        Along the run.
    minutes
        To look, once there.
    before, after
        Numbers of items: those below `before` are on the feed side, those from `after` on are onward, and what is
        between is here.
    """

    at_m: float
    minutes: float
    before: int
    after: int


@dataclass(frozen=True)
class Line:
    """Items in cable order with their weights, and where one may look among them.

    Parameters
    ----------
    weights
        Of the items.
    stops
        In cable order.
    minutes_per_m
        Of walking.
    from_m, to_m
        Where the two lie that the items are between.
    last_step
        (stops + 1, 2) minutes, weighted, to tell apart what lies between two neighbouring stops that were looked at,
        standing at the first or at the second; None where nothing is left to tell.
    """

    weights: Array
    stops: Sequence[Stop]
    minutes_per_m: float
    from_m: float
    to_m: float
    last_step: Array | None = None

    def first_costs(self, walks: Array) -> Array:
        """Weighted minutes of the whole plan for each stop taken first, (stops,), walking `walks` to it from here."""
        least, last = self._least, len(self.stops) + 1
        k = np.arange(1, last)
        minutes = np.array([stop.minutes for stop in self.stops])
        return np.asarray(self._total * (walks + minutes) + least[0, k, 1] + least[k, last, 0])

    @property
    def _total(self) -> float:
        return float(self.weights.sum())

    @cached_property
    def _least(self) -> Array:
        """(bounds, bounds, 2): the least weighted minutes between two, standing at the first or at the second."""
        last = len(self.stops) + 1
        after = np.array([0, *(stop.after for stop in self.stops)])
        before = np.array([0, *(stop.before for stop in self.stops), len(self.weights)])
        at = np.array([self.from_m, *(stop.at_m for stop in self.stops), self.to_m])
        minutes = np.array([0.0, *(stop.minutes for stop in self.stops), 0.0])
        summed = np.concatenate([[0.0], np.cumsum(self.weights)])
        counted = np.concatenate([[0], np.cumsum(self.weights > 0)])
        least = np.zeros((last + 1, last + 1, 2))
        if self.last_step is not None:
            neighbours = np.arange(last)
            least[neighbours, neighbours + 1] = self.last_step
        for apart in range(2, last + 1):
            a = np.arange(last + 1 - apart)
            b = a + apart
            k = a[:, None] + np.arange(1, apart)
            beyond = least[a[:, None], k, 1] + least[k, b[:, None], 0]
            weight = summed[before[b]] - summed[after[a]]
            many = counted[before[b]] - counted[after[a]] > 1
            for side, here in enumerate((at[a], at[b])):
                walked = np.abs(at[k] - here[:, None]) * self.minutes_per_m + minutes[k]
                least[a, b, side] = np.where(many, (weight[:, None] * walked + beyond).min(axis=1), 0.0)
        return least
