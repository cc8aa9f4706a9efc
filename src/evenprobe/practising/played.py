"""A case played as the planner would: what is offered first is taken, until it is known or nothing more is offered.

It is what a person's own way through the case is held against, and shows that a case can be solved at all.
"""

from dataclasses import dataclass

from evenprobe.conditions import Condition
from evenprobe.interpretation import NextMeasurement, Verdict
from evenprobe.practising.case import Case, standing
from evenprobe.quantities import Reading

_MOST_TURNS = 24


@dataclass(frozen=True)
class Turn:
    """One reading and what it did. `at_s`: when it was written down; `struck_out`: what stood before and no more."""

    offered: NextMeasurement
    reading: Reading
    at_s: float
    verdict: Verdict
    struck_out: tuple[Condition, ...]


@dataclass(frozen=True)
class Played:
    """`stands`: what is left at the end."""

    case: Case
    turns: tuple[Turn, ...]
    solved: bool
    stands: tuple[Condition, ...]

    @property
    def seconds(self) -> float:
        """What it took."""
        return self.turns[-1].at_s if self.turns else 0.0

    @property
    def in_time(self) -> bool:
        return self.solved and self.seconds <= 60 * self.case.minutes


def play(case: Case) -> Played:
    """The case from its first reading to its last.

    Parameters
    ----------
    case : Case

    Returns
    -------
    Played
        The same each time.

    Examples
    --------
    >>> from evenprobe.conditions import CONDITIONS
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.practising import Case
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.testers import TYPED
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> truth = CONDITIONS["no-supply"]
    >>> played = play(Case("dead", outlet, truth, 1, (TYPED,), frozenset(["no-supply", "open-line"]), 30))
    >>> played.solved, played.in_time
    (True, True)
    """
    hidden, errors = case.begun()
    readings: list[Reading] = []
    turns: list[Turn] = []
    found = case.interpreted(readings)
    at = 0.0
    while found.next_tests and len(turns) < _MOST_TURNS and not case.is_solved(found):
        offered, before = found.next_tests[0], standing(found)
        at += offered.seconds
        readings.append(hidden.read(f"reading {len(readings) + 1}", offered.measurement, errors, at=at))
        found = case.interpreted(readings)
        after = standing(found)
        struck = tuple(condition for name, condition in before.items() if name not in after)
        turns.append(Turn(offered, readings[-1], at, found.verdict, struck))
    return Played(case, tuple(turns), case.is_solved(found), tuple(standing(found).values()))
