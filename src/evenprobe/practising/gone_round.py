"""A round as a case: several outlets, some of them not right, gone through one after the other.

An outlet is settled once its verdict is one of what it is, not of what is still open (`SETTLED`).
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from evenprobe.interpretation import Verdict
from evenprobe.practising.acts import Act, Met, Progress, progress
from evenprobe.practising.case import Case
from evenprobe.practising.debrief import Conclusion, Debrief, debrief
from evenprobe.practising.played import Played, play
from evenprobe.quantities import Reading

SETTLED = frozenset(Verdict) - {Verdict.UNTESTED, Verdict.CONTRADICTORY, Verdict.UNCONFIRMED}
_READINGS_MORE_EACH = 1
"""Than the planner takes at an outlet is no waste."""


@dataclass(frozen=True)
class GoneRound:
    """By outlet, as the planner plays it."""

    case: Case
    outlets: tuple[Played, ...]

    @property
    def solved(self) -> bool:
        """Whether every outlet was settled."""
        return all(played.solved for played in self.outlets)

    @property
    def seconds(self) -> float:
        """What it took."""
        return sum(played.seconds for played in self.outlets)

    @property
    def in_time(self) -> bool:
        return self.solved and self.seconds <= 60 * self.case.minutes


def go_round(case: Case) -> GoneRound:
    """A round as the program would go: at each outlet what is offered first, until it is settled.

    Parameters
    ----------
    case : Case
        One with several outlets.

    Returns
    -------
    GoneRound
        The same each time.

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> gone = go_round(shipped()["pier-pads-round"].case())
    >>> gone.solved, gone.in_time
    (True, True)
    """
    return GoneRound(case, tuple(play(outlet) for outlet in case.outlets.values()))


@dataclass(frozen=True)
class RoundDebrief:
    """`each`: by the id of an outlet.

    Ids of outlets: `wrong`, those that are not right; `concluded`, those that were named; `open`, those that nothing
    settled.
    """

    case: Case
    each: Mapping[str, Debrief]
    met: tuple[Met, ...]
    conclusion: Conclusion
    wrong: frozenset[str]
    concluded: frozenset[str]
    open: tuple[str, ...]

    @property
    def planner(self) -> GoneRound:
        """Its own way round."""
        played = tuple(each.planner for each in self.each.values() if isinstance(each.planner, Played))
        return GoneRound(self.case, played)

    @property
    def seconds(self) -> float:
        return sum(each.seconds for each in self.each.values())

    @property
    def readings(self) -> int:
        return sum(len(each.taken) for each in self.each.values())

    @property
    def is_mastered(self) -> bool:
        """Whether it need not come back soon: concluded from what was read, and safely."""
        return not self.met and self.conclusion is Conclusion.FOLLOWED

    @property
    def is_economical(self) -> bool:
        """Whether it took little more than the planner took."""
        turns = sum(len(played.turns) for played in self.planner.outlets)
        return not self.open and self.readings <= turns + _READINGS_MORE_EACH * len(self.each)


def debrief_round(case: Case, readings: Mapping[str, Sequence[Reading]], acts: Sequence[Act]) -> RoundDebrief:
    """A round as somebody went it.

    Parameters
    ----------
    case : Case
        One with several outlets.
    readings : mapping of str to sequence of Reading
        By the id of the outlet, as `debrief` takes them.
    acts : sequence of Act
        What was done beside it, in the order of time.

    Returns
    -------
    RoundDebrief

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> from evenprobe.practising.acts import Act, Doing
    >>> case = shipped()["pier-pads-round"].case()
    >>> guess = Act(Doing.CONCLUDED, 60.0, conditions=wrong_outlets(case))
    >>> str(debrief_round(case, {}, [guess]).conclusion)
    'guessed'
    """
    found = progress(acts)
    each = {name: debrief(outlet, readings.get(name, ()), acts) for name, outlet in case.outlets.items()}
    still_open = tuple(name for name, own in each.items() if not (own.taken and own.taken[-1].settled))
    wrong = wrong_outlets(case)
    named = found.concluded or frozenset()
    return RoundDebrief(case, each, found.met, _conclusion(found, wrong, still_open), wrong, named, still_open)


def wrong_outlets(case: Case) -> frozenset[str]:
    """Which outlets of a round are not right.

    Parameters
    ----------
    case : Case
        One with several outlets.

    Returns
    -------
    frozenset of str
        Their ids.

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> sorted(wrong_outlets(shipped()["pier-pads-round"].case()))
    ['east', 'west']
    """
    return frozenset(
        name for name, outlet in case.outlets.items() if not outlet.truth.severity_at(outlet.point).is_fine
    )


def _conclusion(found: Progress, wrong: frozenset[str], still_open: Sequence[str]) -> Conclusion:
    if found.concluded is None:
        return Conclusion.ENDED
    if not wrong <= found.concluded:
        return Conclusion.WRONG
    if found.concluded != wrong:
        return Conclusion.LEFT_OPEN
    return Conclusion.GUESSED if still_open else Conclusion.FOLLOWED
