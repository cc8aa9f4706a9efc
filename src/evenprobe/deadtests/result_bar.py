"""A small bar beside a result: where the reading lies between nothing, what was expected and the limit.

Everything is a share of the bar's length, so that whoever draws it needs no arithmetic. Megohms and milliseconds
to trip span decades and go by their logarithm.
"""

from dataclasses import dataclass
from math import inf, isfinite, log10

from evenprobe.deadtests.judgement import Outcome
from evenprobe.limits import Limit

_DECADES: dict[str, tuple[float, float]] = {"Mohm": (0.01, 10_000.0), "ms": (1.0, 10_000.0)}
"""Units drawn by their logarithm, and from where to where."""
ROOM = 2.0
"""How many times the limit, or the expected value, a bar goes on for."""


@dataclass(frozen=True)
class ResultBar:
    """Shares from 0 to 1. `passes`: from where to where the limit allows; `reads`: the reading with its error."""

    passes: tuple[float, float]
    at: float
    reads: tuple[float, float]
    expected: float | None


def result_bar(outcome: Outcome) -> ResultBar | None:
    """The bar of a result, None where there is no single value against a limit."""
    held, limit = outcome.held, outcome.limit
    if held is None or limit is None or not isfinite(held.value):
        return None
    scale = _Scale(limit, held.value, outcome.expected)
    low, high = held.interval
    return ResultBar(
        passes=(scale.share(limit.band.low), scale.share(limit.band.high)),
        at=scale.share(held.value),
        reads=(scale.share(low), scale.share(high)),
        expected=None if outcome.expected is None else scale.share(outcome.expected),
    )


class _Scale:
    def __init__(self, limit: Limit, value: float, expected: float | None) -> None:
        self.log = limit.unit in _DECADES
        if self.log:
            self.low, self.high = _DECADES[limit.unit]
            return
        known = [abs(x) for x in (limit.band.low, limit.band.high, expected or 0.0) if isfinite(x)]
        furthest = max(ROOM * max(known, default=0.0), abs(value)) or 1.0
        self.low, self.high = (-furthest if limit.band.low < 0 else 0.0), furthest

    def share(self, value: float) -> float:
        """Where a value lies, kept on the bar."""
        if value in (inf, -inf):
            return 1.0 if value > 0 else 0.0
        if self.log:
            value = max(value, self.low)
            share = log10(value / self.low) / log10(self.high / self.low)
        else:
            share = (value - self.low) / (self.high - self.low)
        return min(1.0, max(0.0, share))
