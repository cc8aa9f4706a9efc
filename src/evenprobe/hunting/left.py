"""What is left of a run, and into what looking at a box parts it: feed side, each side that goes on, the box itself."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from math import log2
from typing import NamedTuple

from evenprobe.hunting.evidence import Split
from evenprobe.hunting.findings import Chance
from evenprobe.hunting.run import Place, Run

Region = frozenset[Place]


class Group(NamedTuple):
    """An outcome in words, what is left by it, and the side it shows on: none of the box itself."""

    when: str
    region: Region
    feed: bool = False
    onward: str | None = None


@dataclass(frozen=True)
class Left:
    """What is left of a run.

    Parameters
    ----------
    run
        The run.
    weight
        Of every place that is left; 0 where it cannot be.
    opened
        Boxes that are open already: looking there again costs the way only.
    """

    run: Run
    weight: Mapping[Place, float]
    opened: frozenset[str] = frozenset()

    @cached_property
    def region(self) -> Region:
        return frozenset(self.weight)

    @cached_property
    def stops(self) -> Sequence[str]:
        """Boxes that part it, in cable order."""
        return self.stops_of(self.region)

    def part(self, region: Region) -> "Left":
        """Some of it."""
        return Left(self.run, {place: self.weight[place] for place in region}, self.opened)

    def groups(self, at: str, left: Region) -> Sequence[Group]:
        """What looking at a box parts a region into, none of them empty."""
        beyond = self.run.beyond(at)
        before = frozenset(p for p in left if p.box not in beyond or p == Place(at, stretch=True))
        parts = [Group("feed side", before, feed=True)]
        ahead = self.run.after[at]
        for name in ahead:
            branch = self.run.beyond(name)
            when = "onward side" if len(ahead) == 1 else f"towards {name}"
            parts.append(Group(when, frozenset(p for p in left if p.box in branch), onward=name))
        parts.append(Group("in this box", left & {Place(at)}))
        return [group for group in parts if group.region]

    def outcomes(self, at: str) -> Sequence[Chance]:
        """What may show at a box taken apart, each with its share."""
        whole = self.share(self.region)
        return [
            Chance(group.when, self.share(group.region) / whole, self._split(at, group))
            for group in self.groups(at, self.region)
        ]

    def _split(self, at: str, group: Group) -> Split:
        ahead = self.run.after[at]
        onward = {name: name == group.onward for name in ahead} if len(ahead) > 1 else group.onward is not None
        return Split(at, group.feed, onward)

    def share(self, left: Region) -> float:
        return sum(self.weight[place] for place in left)

    def bits(self, left: Region) -> float:
        """What it takes to tell which of a region it is (Shannon, 1948)."""
        weights = [self.weight[place] for place in left if self.weight[place] > 0]
        whole = sum(weights)
        return -sum(w / whole * log2(w / whole) for w in weights)

    def is_told(self, left: Region) -> bool:
        """Whether one is left."""
        return sum(self.weight[place] > 0 for place in left) < 2

    def minutes(self, here: str, at: str) -> float:
        """To walk to a box and open it."""
        return self.run.walk_minutes(here, at) + self.minutes_at(at)

    def minutes_at(self, at: str) -> float:
        return 0.0 if at in self.opened else self.run.box[at].open_minutes

    def stops_of(self, left: Region) -> Sequence[str]:
        """Boxes that part a region, in cable order."""
        return [box.id for box in self.run.boxes if Place(box.id) in left and len(left) > 1]

    def as_path(self) -> Sequence[Place] | None:
        """It in cable order, where it does not branch."""
        path = [place for place in self.run.places if place in self.region]
        for one, other in pairwise(path):
            follows = self.run.box[other.box].after if other.stretch else other.box
            if follows != one.box:
                return None
        return path

    def expected(self, here: str, choose: Callable[[Region, str], str]) -> float:
        """Minutes expected by a rule that chooses the box from what is left and where one stands."""
        whole = self.share(self.region)
        minutes = 0.0
        ahead: list[tuple[Region, str]] = [(self.region, here)]
        while ahead:
            left, at = ahead.pop()
            if self.is_told(left):
                continue
            name = choose(left, at)
            minutes += self.share(left) / whole * self.minutes(at, name)
            ahead += [(group.region, name) for group in self.groups(name, left)]
        return minutes

    def in_order(self, here: str) -> float:
        """Minutes expected by opening one after another from the board on."""
        return self.expected(here, lambda left, _: self.stops_of(left)[0])
