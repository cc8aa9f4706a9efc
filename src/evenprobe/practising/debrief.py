"""A case looked back on: each reading with what it struck out and what a better one would have, and what was safe.

Judged by what matters: safety, evidence, economy, record. A conclusion counts where the readings that count leave
nothing else, as everywhere.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum

from evenprobe.conditions import Condition
from evenprobe.interpretation import NextMeasurement, PointInterpretation, Verdict
from evenprobe.practising.acts import Act, Met, Progress, progress, progress_at
from evenprobe.practising.case import Case, standing
from evenprobe.practising.made_dead import MadeDead, make_dead
from evenprobe.practising.played import Played, play
from evenprobe.practising.simulated import Simulated
from evenprobe.quantities import Reading
from evenprobe.wiring.circumstances import Device

_MOVED_BETWEEN = 0.03
"""The share that a supply may have moved by between a look at the display and its being written down."""
_A_READING_MORE = 1
"""Than the planner takes is no waste."""


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
    out more; `settled`: whether the case was settled from then on; `counted`: whether it could strike anything out.
    `shown`: what the display had, where something else was written down; `device`: how the circuit's device really was,
    where it was said to be otherwise.
    """

    reading: Reading
    struck_out: tuple[Condition, ...]
    better: NextMeasurement | None
    verdict: Verdict
    settled: bool
    counted: bool
    shown: Reading | None = None
    device: Device | None = None


@dataclass(frozen=True)
class Debrief:
    """`others`: what the readings leave that was not named; `left`: all that they leave beside the truth; worst first.

    `planner`: its own way through the same case.
    """

    case: Case
    taken: tuple[Taken, ...]
    met: tuple[Met, ...]
    conclusion: Conclusion
    others: tuple[Condition, ...]
    left: tuple[Condition, ...]
    seconds: float
    planner: Played | MadeDead

    @property
    def is_safe(self) -> bool:
        """Whether no danger was met."""
        return not self.met

    @property
    def is_mastered(self) -> bool:
        """Whether it need not come back soon: concluded from what was read, and safely."""
        return self.is_safe and self.conclusion is Conclusion.FOLLOWED

    @property
    def is_economical(self) -> bool:
        """Whether it took little more than the planner took; to make it dead, no longer than the case claims."""
        if isinstance(self.planner, MadeDead):
            return self.conclusion is Conclusion.FOLLOWED and self.seconds <= 60 * self.case.minutes
        return self.certain_after is not None and len(self.taken) <= len(self.planner.turns) + _A_READING_MORE

    @property
    def slips(self) -> tuple[Taken, ...]:
        """Readings that were written down otherwise than they were shown."""
        return tuple(t for t in self.taken if t.shown is not None or t.device is not None)

    @property
    def certain_after(self) -> int | None:
        """The reading, from 1, after which the answer was certain; None where it never was."""
        return next((n for n, t in enumerate(self.taken, 1) if t.settled), None)


def debrief(case: Case, readings: Sequence[Reading], acts: Sequence[Act]) -> Debrief:
    """A case as somebody went through it.

    Parameters
    ----------
    case : Case
    readings : sequence of Reading
        All that were recorded and stand, in the order they were taken, at seconds since the case was opened; those
        taken after it was over do not count.
    acts : sequence of Act
        What was done beside it, in the order of time.

    Returns
    -------
    Debrief

    Examples
    --------
    >>> from evenprobe.conditions import CONDITIONS
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.practising import Act, Case, Doing, debrief
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.testers import TYPED
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> truth = CONDITIONS["no-supply"]
    >>> case = Case("dead", outlet, truth, 1, (TYPED,), frozenset(["no-supply", "open-line"]), 30)
    >>> concluded = Act(Doing.CONCLUDED, 60.0, conditions=frozenset(["no-supply"]))
    >>> str(debrief(case, [], [concluded]).conclusion)
    'guessed'
    """
    found, simulated = progress(acts), Simulated(case)
    readings = [r for r in readings if found.over_at_s is None or (r.at or 0.0) <= found.over_at_s]
    asked = [case.interpreted(readings[:n]) for n in range(len(readings) + 1)]
    taken = tuple(
        _with_slips(_taken(case, reading, asked[n], asked[n + 1]), simulated, progress_at(acts, reading.at or 0.0))
        for n, reading in enumerate(readings)
    )
    left = _worst_first(c for c in standing(asked[-1]).values() if c.id != case.truth.id)
    others = tuple(c for c in left if c.id not in (found.concluded or frozenset()))
    at_the_board = sum(r.measurement.quantity.seconds(r.measurement) for r in readings)
    seconds = (found.over_at_s or 0.0) if case.to_be_made_dead else at_the_board
    conclusion = _conclusion(case, asked[-1], found, others)
    planner = make_dead(case) if case.to_be_made_dead else play(case)
    return Debrief(case, taken, found.met, conclusion, others, left, seconds, planner)


def _taken(case: Case, reading: Reading, before: PointInterpretation, after: PointInterpretation) -> Taken:
    stood, stands = standing(before), standing(after)
    struck = tuple(condition for name, condition in stood.items() if name not in stands)
    offered = before.next_tests[0] if before.next_tests else None
    better = offered if offered and len(set(offered.rules_out) & set(stood)) > len(struck) else None
    counted = all(kept.reading != reading.id for kept in after.not_counted)
    return Taken(reading, struck, better, after.verdict, case.is_solved(after), counted)


def _with_slips(taken: Taken, simulated: Simulated, then: Progress) -> Taken:
    """With what was written down otherwise than it was."""
    reading = taken.reading
    measurement = reading.measurement
    shown = simulated.shows(measurement, device=then.fed(simulated.other_feed), at=reading.at or 0.0)
    return replace(
        taken,
        shown=None if _is_told_alike(reading, shown, simulated) else shown,
        device=None if measurement.device == then.device else then.device,
    )


def _is_told_alike(reading: Reading, shown: Reading, simulated: Simulated) -> bool:
    """Whether a display that moves could have shown what was written down."""
    if reading.value is None or shown.value is None:
        own, other = replace(reading, id="", at=None, unfit=""), replace(shown, id="", at=None, unfit="")
        seen = ("value", "at_least", "below", "over_range", "alarm", "tripped", "lit")
        return all(getattr(own, name) == getattr(other, name) for name in seen)
    constant, share = simulated.apart(reading.measurement)
    if reading.measurement.quantity.with_source:
        share += _MOVED_BETWEEN
    return abs(reading.value - shown.value) <= constant + share * max(reading.value, shown.value)


def _worst_first(conditions: Iterable[Condition]) -> tuple[Condition, ...]:
    return tuple(sorted(conditions, key=lambda condition: -condition.severity))


def _conclusion(
    case: Case, found: PointInterpretation, progress: Progress, others: tuple[Condition, ...]
) -> Conclusion:
    if case.to_be_made_dead and progress.touched:
        return Conclusion.FOLLOWED
    if progress.concluded is None:
        return Conclusion.ENDED
    if case.truth.id not in progress.concluded:
        return Conclusion.WRONG
    if others:
        return Conclusion.GUESSED
    settled = case.is_solved(found) and progress.concluded <= case.among | set(standing(found))
    return Conclusion.FOLLOWED if settled else Conclusion.LEFT_OPEN
