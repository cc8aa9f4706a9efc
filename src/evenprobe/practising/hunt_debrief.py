"""A hunt looked back on: each look with what it left, what a better one would have, and what was safe."""

from collections.abc import Sequence
from dataclasses import dataclass

from evenprobe.hunting.evidence import Looked, Split
from evenprobe.hunting.run import BOARD
from evenprobe.practising.acts import Act, Met, Progress, progress, progress_at
from evenprobe.practising.case import Case
from evenprobe.practising.debrief import Conclusion
from evenprobe.practising.hunted import Ahead, Hunted, Seen
from evenprobe.practising.hunted_through import HuntedThrough, hunt_through

_A_LOOK_MORE = 1
"""Than the planner takes is no waste."""


@dataclass(frozen=True)
class Told:
    """What somebody told of a place, in seconds since the case was opened; `tester`: the id of what was in the hand."""

    seen: Seen
    at_s: float
    tester: str = ""


@dataclass(frozen=True)
class LookBack:
    """`struck_out`: ids of what could be at fault before it and no more.

    `better`: where the planner would have looked, where that strikes out `better_rules_out`, which is more; `settled`:
    whether one was left from then on. `instead`: what there was to see, where something else was told; `unopened`:
    whether it was told of a box that was never open.
    """

    told: Told
    struck_out: tuple[str, ...]
    better: Ahead | None
    better_rules_out: int
    settled: bool
    instead: Seen | None
    unopened: bool

    @property
    def is_slip(self) -> bool:
        return self.instead is not None or self.unopened


@dataclass(frozen=True)
class HuntDebrief:
    """`others`: ids of what the looks leave that was not named; `left`: of all that they leave beside the truth.

    `planner`: its own way through the same hunt.
    """

    case: Case
    taken: tuple[LookBack, ...]
    met: tuple[Met, ...]
    conclusion: Conclusion
    others: tuple[str, ...]
    left: tuple[str, ...]
    seconds: float
    planner: HuntedThrough

    @property
    def is_mastered(self) -> bool:
        """Whether it need not come back soon: concluded from what was seen, and safely."""
        return not self.met and self.conclusion is Conclusion.FOLLOWED

    @property
    def is_economical(self) -> bool:
        """Whether it took little more than the planner took."""
        return self.certain_after is not None and len(self.taken) <= len(self.planner.looks) + _A_LOOK_MORE

    @property
    def certain_after(self) -> int | None:
        """The look, from 1, after which one thing was left; None where it never was."""
        return next((n for n, look in enumerate(self.taken, 1) if look.settled), None)


def debrief_hunt(case: Case, told: Sequence[Told], acts: Sequence[Act]) -> HuntDebrief:
    """A hunt as somebody went through it.

    Parameters
    ----------
    case : Case
        One in which something is hunted.
    told : sequence of Told
        All that was told and stands, in the order of time; what was told after it was over does not count.
    acts : sequence of Act
        What was done beside it, in the order of time.

    Returns
    -------
    HuntDebrief

    Raises
    ------
    ValueError
        Where nothing is hunted in it.

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> from evenprobe.practising.acts import Act, Doing
    >>> case = shipped()["loom-will-not-start"].case()
    >>> guess = Act(Doing.CONCLUDED, 60.0, conditions=frozenset([case.hunted.truth]))
    >>> str(debrief_hunt(case, [], [guess]).conclusion)
    'guessed'
    """
    planner, found = hunt_through(case), progress(acts)
    hunted = planner.hunted
    told = [each for each in told if found.over_at_s is None or each.at_s <= found.over_at_s]
    taken = tuple(_looked_back(hunted, told, number, acts) for number in range(len(told)))
    stands = hunted.came([each.seen for each in told]).left
    left = tuple(name for name in hunted.suspects if name in stands - {hunted.truth})
    others = tuple(name for name in left if name not in (found.concluded or frozenset()))
    seen = [each.seen for each in told]
    minutes = sum(hunted.minutes(seen[:n], look) for n, look in enumerate(seen))
    conclusion = _conclusion(hunted, stands, found, others)
    return HuntDebrief(case, taken, found.met, conclusion, others, left, 60 * minutes, planner)


def _looked_back(hunted: Hunted, told: Sequence[Told], number: int, acts: Sequence[Act]) -> LookBack:
    own, before = told[number], [each.seen for each in told[:number]]
    came, after = hunted.came(before), hunted.came([*before, own.seen]).left
    struck = came.left - after
    better = frozenset[str]()
    if came.ahead is not None:
        better = came.left - hunted.came([*before, hunted.look(came.ahead)]).left
    is_better = len(better) > len(struck)
    return LookBack(
        own,
        tuple(name for name in hunted.suspects if name in struck),
        came.ahead if is_better else None,
        len(better) if is_better else 0,
        settled=after == {hunted.truth},
        instead=hunted.instead(own.seen),
        unopened=_box_told_of(own.seen) not in {"", *progress_at(acts, own.at_s).opened},
    )


def _box_told_of(seen: Seen) -> str:
    """The box that has to be open for it; empty where none has."""
    return seen.at if isinstance(seen, Split | Looked) and seen.at != BOARD else ""


def _conclusion(hunted: Hunted, stands: frozenset[str], found: Progress, others: tuple[str, ...]) -> Conclusion:
    if found.concluded is None:
        return Conclusion.ENDED
    if hunted.truth not in found.concluded:
        return Conclusion.WRONG
    if others:
        return Conclusion.GUESSED
    is_told = stands == {hunted.truth} and found.concluded <= stands
    return Conclusion.FOLLOWED if is_told else Conclusion.LEFT_OPEN
