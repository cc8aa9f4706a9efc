"""Which dead tests of a circuit are evidence at its points, and which of those at one point.

What passed counts from the latest sheet only; what failed stays until it is tested again, for a new sheet is no
mending. Only what was taken while it was proved dead, and at each conductor's own ends: what is measured at the
board is measured at the board's ends.
"""

from collections.abc import Iterable, Mapping
from typing import Any, TypeVar

from evenprobe.deadtests.energising import Taken
from evenprobe.deadtests.judgement import Result
from evenprobe.deadtests.kinds import OneTest
from evenprobe.wiring import Terminal
from evenprobe.wiring.points import BOARD_END

Where = TypeVar("Where")
"""The sheet and the line of a test."""


def in_force(sheets: Iterable[Mapping[str, tuple[Where, Taken]]]) -> list[tuple[Where, Taken]]:
    """Of each line, by its id, the test that counts; `sheets` the latest first."""
    found: dict[str, tuple[Where, Taken]] = {}
    for number, tests in enumerate(sheets):
        for line, (where, test) in tests.items():
            if line not in found and (number == 0 or test.outcome.result is Result.FAIL):
                found[line] = where, test
    return list(found.values())


def as_reading(test: OneTest, taken: Taken) -> dict[str, Any] | None:
    """A reading of the survey file; None for what says nothing of conductors, or was not taken dead."""
    return test.as_reading(taken.outcome) if taken.dead else None


def belongs_to(
    reading: Mapping[str, Any], terminals: Iterable[Terminal], *, at_the_point: bool, which_contact_is_known: bool
) -> bool:
    """Whether a dead test says something of a point with these terminals.

    `at_the_point`: whether it was made there, and not between conductors of the whole circuit. Where a plug fits both
    ways a sheet says which conductor was read, not at which contact: only the Bench knows that.
    """
    here = {str(t) for t in terminals} | {str(BOARD_END[t]) for t in terminals if t in BOARD_END}
    if at_the_point and not which_contact_is_known and reading["from"] != Terminal.PE:
        return False
    return {reading["from"], reading["to"]} <= here
