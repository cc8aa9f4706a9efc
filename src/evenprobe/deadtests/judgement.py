"""What a test comes to: a result, the limit it was held against, what was computed, and what is said of it.

A limit inside a reading's interval is `borderline`: neither passed nor failed. `invalid` does not count: it was
made another way than the limit asks for. It is kept all the same.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from evenprobe.deadtests.accuracy import Shown
from evenprobe.limits import Limit
from evenprobe.sentences import Sentence


class Result(StrEnum):
    """What a dead test comes to. `NOTE`: it passes and there is something to know of it."""

    PASS = "pass"
    NOTE = "note"
    BORDERLINE = "borderline"
    FAIL = "fail"
    INVALID = "invalid"


_WORSE = (Result.PASS, Result.NOTE, Result.BORDERLINE, Result.FAIL)
_OF_BAND = {True: Result.PASS, False: Result.FAIL, None: Result.BORDERLINE}


@dataclass(frozen=True)
class Outcome:
    """`computed`: figures by name, units in the names. `question`: what to ask before it is believed, or empty.

    `held`: what was held against the limit, in its unit; `expected`: what it should be, where anything says so.
    """

    result: Result
    said: Sequence[Sentence] = ()
    limit: Limit | None = None
    computed: Mapping[str, Any] = field(default_factory=dict)
    question: str = ""
    held: Shown | None = None
    expected: float | None = None

    @property
    def text(self) -> str:
        """All that is said of it."""
        return " ".join(str(sentence) for sentence in self.said)


def held_against(limit: Limit, interval: tuple[float, float]) -> Result:
    """Pass when the whole interval is within the limit, fail when none of it is, else borderline.

    Where a band begins at zero nothing less can be, whatever the tester's error.
    """
    low, high = interval
    if limit.band.low == 0:
        low, high = max(0.0, low), max(0.0, high)
    return _OF_BAND[limit.band.holds((low, high))]


def worst(results: Iterable[Result]) -> Result:
    """The worst of several results that count."""
    return max(results, key=_WORSE.index, default=Result.PASS)
