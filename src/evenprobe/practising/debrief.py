"""A case looked back on: each reading with what it struck out and what a better one would have, and what was safe.

Judged by what matters: safety, evidence, economy, record. A conclusion counts where the readings that count leave
nothing else, as everywhere.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from evenprobe.conditions import Condition
from evenprobe.interpretation import NextMeasurement, PointInterpretation, Verdict, interpret
from evenprobe.practising.acts import Met, Progress
from evenprobe.practising.case import Case
from evenprobe.practising.played import Played, play
from evenprobe.quantities import Reading


class Conclusion(StrEnum):
    """What a conclusion was worth."""

    FOLLOWED = "followed"
    GUESSED = "guessed"
    LEFT_OPEN = "left-open"
    WRONG = "wrong"
    ENDED = "ended"


@dataclass(frozen=True)
class Taken:
    """A reading that somebody took.

    `struck_out`: what stood before it and no more; `better`: what the planner would have read then, where that rules
    out more; `settled`: whether the case was settled from then on; `shown`: what the display had, where something else
    was written down.
    """

    reading: Reading
    struck_out: tuple[Condition, ...]
    better: NextMeasurement | None
    verdict: Verdict
    settled: bool
    counted: bool
    shown: Reading | None = None


@dataclass(frozen=True)
class Debrief:
    """`others`: what the readings leave beside the truth that was not named, the worst first. `planner`: its own run."""

    case: Case
    taken: tuple[Taken, ...]
    met: tuple[Met, ...]
    conclusion: Conclusion
    others: tuple[Condition, ...]
    seconds: float
    planner: Played

    @property
    def is_safe(self) -> bool:
        """Whether no danger was met."""
        return not self.met

    @property
    def is_mastered(self) -> bool:
        """Whether it need not come back soon: concluded from what was read, and safely."""
        return self.is_safe and self.conclusion is Conclusion.FOLLOWED

    @property
    def slips(self) -> tuple[Taken, ...]:
        """Readings that were written down otherwise than they were shown."""
        return tuple(t for t in self.taken if t.shown is not None)

    @property
    def certain_after(self) -> int | None:
        """The reading, from 1, after which the answer was certain; None where it never was."""
        return next((n for n, t in enumerate(self.taken, 1) if t.settled), None)


def debrief(
    case: Case, readings: Sequence[Reading], found: Progress, shown: dict[str, Reading] | None = None
) -> Debrief:
    """A case as somebody went through it.

    Parameters
    ----------
    case : Case
    readings : sequence of Reading
        All that were recorded and stand, in the order they were taken.
    found : Progress
        What was done beside it.
    shown : dict of str to Reading, optional
        By a reading's id what the display had, where that was another.

    Returns
    -------
    Debrief

    Examples
    --------
    >>> from evenprobe.conditions import CONDITIONS
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.practising import Case, Progress, debrief
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.testers import TYPED
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> truth = CONDITIONS["no-supply"]
    >>> case = Case("dead", outlet, truth, 1, (TYPED,), frozenset(["no-supply", "open-line"]), 30)
    >>> str(debrief(case, [], Progress(concluded=frozenset(["no-supply"]))).conclusion)
    'guessed'
    """
    asked = [interpret_for(case, readings[:n]) for n in range(len(readings) + 1)]
    planner = play(case)
    taken = tuple(
        _taken(case, reading, asked[n], asked[n + 1], (shown or {}).get(reading.id))
        for n, reading in enumerate(readings)
    )
    others = _others(asked[-1], found)
    seconds = sum(r.measurement.quantity.seconds(r.measurement) for r in readings)
    conclusion = _conclusion(case, asked[-1], found, others)
    return Debrief(case, taken, found.met, conclusion, others, seconds, planner)


def interpret_for(case: Case, readings: Sequence[Reading]) -> PointInterpretation:
    """What the readings mean, with what is at hand in the case."""
    return interpret(case.point, readings, case.kit, cannot=case.cannot, noticed=case.noticed)


def standing(found: PointInterpretation) -> dict[str, Condition]:
    """What still fits, by its id."""
    return {o.condition.id: o.condition for o in found.conditions if o.standing}


def _taken(
    case: Case, reading: Reading, before: PointInterpretation, after: PointInterpretation, shown: Reading | None
) -> Taken:
    stood, stands = standing(before), standing(after)
    struck = tuple(condition for name, condition in stood.items() if name not in stands)
    offered = before.next_tests[0] if before.next_tests else None
    better = offered if offered and len(set(offered.rules_out) & set(stood)) > len(struck) else None
    counted = all(kept.reading != reading.id for kept in after.not_counted)
    return Taken(reading, struck, better, after.verdict, case.is_solved(after), counted, shown)


def _others(found: PointInterpretation, progress: Progress) -> tuple[Condition, ...]:
    """What fits and was not concluded to be possible, the worst first."""
    concluded = progress.concluded or frozenset()
    left = [condition for name, condition in standing(found).items() if name not in concluded]
    return tuple(sorted(left, key=lambda condition: -condition.severity))


def _conclusion(
    case: Case, found: PointInterpretation, progress: Progress, others: tuple[Condition, ...]
) -> Conclusion:
    if progress.concluded is None:
        return Conclusion.ENDED
    if case.truth.id not in progress.concluded:
        return Conclusion.WRONG
    if others:
        return Conclusion.GUESSED
    settled = case.is_solved(found) and progress.concluded <= case.among | set(standing(found))
    return Conclusion.FOLLOWED if settled else Conclusion.LEFT_OPEN
