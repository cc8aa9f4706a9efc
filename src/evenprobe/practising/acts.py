"""What somebody does at a case beside reading: switching, locking, touching, asking, concluding; and what it leads to.

The order of safe work is the handbook's: off, locked, proved dead, and only then hands (EN 50110-1, 6.2).
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any

from evenprobe.wiring.circumstances import Device


class Doing(StrEnum):
    """What there is to do; `looked` for what else feeds the circuit, which is switched and locked as its device is."""

    OFF = "off"
    ON = "on"
    LOCKED = "locked"
    UNLOCKED = "unlocked"
    LOOKED = "looked"
    FEED_OFF = "feed-off"
    FEED_ON = "feed-on"
    FEED_LOCKED = "feed-locked"
    FEED_UNLOCKED = "feed-unlocked"
    PROBED = "probed"
    OPENED = "opened"
    TOUCHED = "touched"
    RULED_OUT = "ruled-out"
    HINT = "hint"
    SHOWN = "shown"
    CONCLUDED = "concluded"


class Danger(StrEnum):
    """What could have hurt, or broke something."""

    BLOWN = "blown"
    LIVE_LOCK = "live-lock"
    LIFTED_LIVE = "lifted-live"
    ONTO_FAULT = "onto-fault"
    TOUCHED_LIVE = "touched-live"
    TOUCHED_UNPROVED = "touched-unproved"


_ENDS = frozenset({Danger.TOUCHED_LIVE, Danger.TOUCHED_UNPROVED})
"""What a case is over with."""
HINTS = 3
"""Levels: what kind of question is open, which reading decides, why."""
_SIMPLY: dict[Doing, dict[str, Any]] = {
    Doing.OFF: {"device": "open"},
    Doing.ON: {"device": "closed"},
    Doing.LOCKED: {"locked": True},
    Doing.UNLOCKED: {"locked": False},
    Doing.LOOKED: {"looked": True},
    Doing.FEED_OFF: {"feed": "open"},
    Doing.FEED_ON: {"feed": "closed"},
    Doing.FEED_LOCKED: {"feed_locked": True},
    Doing.FEED_UNLOCKED: {"feed_locked": False},
    Doing.TOUCHED: {"touched": True},
    Doing.SHOWN: {"shown": True},
}
"""What becomes of a case by what was done, whatever else is."""
OF_THE_FEED = frozenset({Doing.FEED_OFF, Doing.FEED_ON, Doing.FEED_LOCKED, Doing.FEED_UNLOCKED})
"""Is done to what somebody found; before, whatever was switched was something else."""


@dataclass(frozen=True)
class Act:
    """One of them, in seconds since the case was opened.

    `tester`: whose probes were put on; `box`: which was opened; `danger`: what came of it, as it was worked out then;
    `conditions`: ids that are taken to be ruled out, or concluded to be what it is; `said`: what a hint said; `ends`:
    whether the case was over with it, being done.
    """

    doing: Doing
    at_s: float
    tester: str = ""
    box: str = ""
    danger: Danger | None = None
    conditions: frozenset[str] = frozenset()
    said: str = ""
    ends: bool = False


@dataclass(frozen=True)
class Met:
    """A danger, and when."""

    danger: Danger
    at_s: float
    tester: str = ""


@dataclass(frozen=True)
class Progress:
    """How far a case is after what was done. `touched`: whether hands were on it; `blown`: ids of testers gone dark.

    `looked`: whether somebody looked for what else feeds it; `feed`, `feed_locked`: how that is, if there is any.
    `opened`: boxes that are open.
    `over_at_s`: when it was over, by a danger, a conclusion, or by being done.
    """

    device: Device = "closed"
    locked: bool = False
    looked: bool = False
    feed: Device = "closed"
    feed_locked: bool = False
    opened: frozenset[str] = frozenset()
    touched: bool = False
    blown: frozenset[str] = frozenset()
    met: tuple[Met, ...] = ()
    ruled_out: frozenset[str] = frozenset()
    hints: "tuple[Act, ...]" = ()
    shown: bool = False
    concluded: frozenset[str] | None = None
    ended: Met | None = None
    over_at_s: float | None = None

    @property
    def is_over(self) -> bool:
        """Whether nothing more can be done."""
        return self.over_at_s is not None

    def fed(self, other_feed: str) -> Device:
        """As if by one device: open where all that feeds it is. `other_feed`: what there is beside its own, if any."""
        return "closed" if other_feed and self.feed == "closed" else self.device


def progress(acts: Sequence[Act]) -> Progress:
    """How far a case is.

    Parameters
    ----------
    acts : sequence of Act
        In the order of time; what comes after the end changes nothing.

    Returns
    -------
    Progress

    Examples
    --------
    >>> found = progress([Act(Doing.OFF, 20.0), Act(Doing.LOCKED, 30.0)])
    >>> found.device, found.locked, found.is_over
    ('open', True, False)
    >>> touched = Act(Doing.TOUCHED, 40.0, danger=Danger.TOUCHED_UNPROVED)
    >>> progress([Act(Doing.OFF, 20.0), touched]).ended.danger
    <Danger.TOUCHED_UNPROVED: 'touched-unproved'>
    """
    found = Progress()
    for act in acts:
        if not found.is_over:
            found = _after(found, act)
    return found


def progress_at(acts: Sequence[Act], at_s: float) -> Progress:
    """How far it was at a time."""
    return progress([act for act in acts if act.at_s <= at_s])


def after(found: Progress, doing: Doing, at_s: float) -> Progress:
    """How far it is once that was done too, and nothing came of it."""
    return _after(found, Act(doing, at_s))


def refusal(found: Progress, doing: Doing) -> str:
    """Why it cannot be done as things are.

    Parameters
    ----------
    found : Progress
        How far the case is.
    doing : Doing
        What somebody would do.

    Returns
    -------
    str
        Empty where it can be done.

    Examples
    --------
    >>> refusal(progress([Act(Doing.OFF, 1.0), Act(Doing.LOCKED, 2.0)]), Doing.ON)
    'it is locked off; take the lock off first'
    """
    if found.is_over:
        return "this case is over"
    held = (doing is Doing.ON and found.locked) or (doing is Doing.FEED_ON and found.feed_locked)
    return "it is locked off; take the lock off first" if held else ""


def locks_what_is_on(found: Progress, doing: Doing) -> bool:
    """Whether a lock is put on what holds nothing yet."""
    return (doing is Doing.LOCKED and found.device == "closed") or (
        doing is Doing.FEED_LOCKED and found.feed == "closed"
    )


def next_hint(found: Progress, last_read_s: float) -> int | None:
    """Which hint comes next.

    Parameters
    ----------
    found : Progress
        How far the case is.
    last_read_s : float
        When the last reading was recorded, in seconds since the case was opened; below 0 where there is none.

    Returns
    -------
    int or None
        Its level, from 0; None where the last one was given since that reading.

    Examples
    --------
    >>> hints = [Act(Doing.HINT, at_s, said="…") for at_s in (10.0, 20.0, 30.0)]
    >>> next_hint(progress(hints), -1.0), next_hint(progress(hints), 15.0)
    (None, 2)
    """
    given = sum(hint.at_s > last_read_s for hint in found.hints)
    return given if given < HINTS else None


def _after(found: Progress, act: Act) -> Progress:
    if act.danger is not None:
        met = Met(act.danger, act.at_s, act.tester)
        found = replace(found, met=(*found.met, met))
        if act.danger in _ENDS:
            return replace(found, ended=met, over_at_s=act.at_s)
        if act.danger is Danger.ONTO_FAULT:
            return found
        if act.danger is Danger.BLOWN:
            found = replace(found, blown=found.blown | {act.tester})
    if act.doing in OF_THE_FEED and not found.looked:
        return found
    found = replace(found, **_SIMPLY.get(act.doing, {}))
    match act.doing:
        case Doing.TOUCHED if act.ends:
            return replace(found, touched=True, over_at_s=act.at_s)
        case Doing.OPENED:
            return replace(found, opened=found.opened | {act.box})
        case Doing.RULED_OUT:
            return replace(found, ruled_out=act.conditions)
        case Doing.HINT:
            return replace(found, hints=(*found.hints, act))
        case Doing.CONCLUDED:
            return replace(found, concluded=act.conditions, over_at_s=act.at_s)
        case _:
            return found
