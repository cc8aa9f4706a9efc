"""What was seen along a run, and where it lets a fault be.

Each of them leaves a set of places. Such a set hangs together along the run, so that sets of which every two have a
place in common have one in common all of them (Helly's property of subtrees): what contradicts is always two of them.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

from evenprobe.hunting.run import BOARD, Place, Run

Places = frozenset[Place]


@dataclass(frozen=True)
class Split:
    """A box taken apart, and on which side the joint shows; of the board the onward side only.

    `feed`: None where that side was not tested. `onward`: of every cable that goes on from there, where they were
    tested apart by the box each leads to.
    """

    at: str
    feed: bool | None = None
    onward: bool | Mapping[str, bool] | None = None

    def onward_of(self, run: Run) -> Mapping[str, bool]:
        """By box, of the cables whose own outcome is known."""
        if isinstance(self.onward, Mapping):
            return self.onward
        ahead = run.after[self.at]
        if self.onward is None or (self.onward and len(ahead) > 1):
            return {}
        return dict.fromkeys(ahead, self.onward)

    def shows_onward(self) -> bool | None:
        """Whether it shows on any side that goes on; None where none was tested."""
        if isinstance(self.onward, Mapping):
            return any(self.onward.values())
        return self.onward


@dataclass(frozen=True)
class Presence:
    """Whether a box has its voltage; `volts` it was told by, by pair, where some were measured."""

    at: str
    live: bool
    volts: Mapping[str, float] | None = None


@dataclass(frozen=True)
class Looked:
    """A box that was opened, dead, and whether the fault was in it."""

    at: str
    here: bool


@dataclass(frozen=True)
class Loop:
    """Ohms of the joined conductors from an open end, and of the leads by themselves."""

    at: str
    ohm: float
    null_ohm: float = 0.0


def left_by_split(run: Run, split: Split) -> Places:
    """Where a short can be by what one box taken apart showed; nowhere if it shows on two sides at once."""
    every = frozenset(run.places)
    if split.at == BOARD:
        return every if split.shows_onward() is not False else frozenset()
    beyond = _of_boxes(run, run.beyond(split.at)) - {Place(split.at, stretch=True)}
    in_box = {Place(split.at)}
    before = every - beyond
    if split.feed and split.shows_onward():
        return frozenset()
    left = every
    if split.feed is not None:
        left = before if split.feed else beyond
    onward = split.onward_of(run)
    for name, shows in onward.items():
        branch = _of_boxes(run, run.beyond(name))
        left = left & branch if shows else left - branch
    if split.shows_onward() and not onward:
        left = left - in_box - before
    return frozenset(left)


def _of_boxes(run: Run, names: frozenset[str]) -> Places:
    return frozenset(place for place in run.places if place.box in names)


def two_that_exclude(left: Sequence[Places]) -> tuple[int, int] | None:
    """The first two that have no place in common; one alone that leaves none excludes itself."""
    for number, places in enumerate(left):
        if not places:
            return number, number
    apart = ((i, j) for j, i in combinations(range(len(left))[::-1], 2) if not left[i] & left[j])
    return min(apart, key=lambda pair: (pair[1], pair[0]), default=None)
