"""What dead tests, trips, loads and components come to."""

from collections.abc import Iterable

from evenprobe.deadtests import Outcome
from evenprobe.formats.answers.answer import Answer, Identified
from evenprobe.formats.answers.limits import OutcomeOut


class TestOut(OutcomeOut, Identified):
    """What one test of a file comes to."""


class TestsOut(Answer):
    """What `judge` answers: every test of a file."""

    tests: list[TestOut]

    @classmethod
    def of(cls, outcomes: Iterable[tuple[str, Outcome]]) -> "TestsOut":
        return cls(tests=[TestOut(id=name, **dict(OutcomeOut.of(outcome))) for name, outcome in outcomes])
