"""Where to look next along a run, for the fewest minutes still to come over every outcome.

On a run without branches all plans are reckoned (`line`), on a tree too while it is small (`tree`). Beyond that the box
is taken that leaves the fewest minutes, small parts reckoned and the rest by the bits they take, and it is not exact.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from evenprobe.hunting.left import Left, Region
from evenprobe.hunting.line import Line, Stop
from evenprobe.hunting.run import Place
from evenprobe.hunting.tree import TooManyPlans, Tree

LINE_UP_TO, TREE_UP_TO = 300, 16
"""Boxes up to which all plans are reckoned, without branches, in some second at the most, and with."""
_RECKONED_UP_TO = 9
"""Boxes of a part of a larger tree."""
_OF_A_LOOK = 0.6
"""What telling one bit takes: a look has three outcomes and more, and the likely ones come first."""


@dataclass(frozen=True)
class Plan:
    """`minutes`: expected from here. `exact`: whether no other plan takes fewer."""

    at: str
    minutes: float
    exact: bool


def plan(left: Left, here: str) -> Plan | None:
    """The box to look at first, standing somewhere; None where nothing is left to tell."""
    if left.is_told(left.region):
        return None
    path = left.as_path()
    if path is not None and len(left.stops) <= LINE_UP_TO:
        return Plan(*_along(left, path, here), exact=True)
    if path is None and len(left.stops) <= TREE_UP_TO:
        try:
            return Plan(*Tree(left).first(here), exact=True)
        except TooManyPlans:
            pass
    halves = Halves(left)
    return Plan(halves.best(left.region, here), left.expected(here, halves.best), exact=False)


def _along(left: Left, path: Sequence[Place], here: str) -> tuple[str, float]:
    run, names = left.run, left.stops
    number = {place: i for i, place in enumerate(path)}
    metres = run.distance_m
    stops = [Stop(metres[name], left.minutes_at(name), number[Place(name)], number[Place(name)] + 1) for name in names]
    weights = np.array([left.weight[place] for place in path])
    ends = metres[run.box[path[0].box].after], metres[path[-1].box]
    line = Line(weights, stops, run.walk_minutes_per_m, *ends)
    costs = line.first_costs(np.array([run.walk_minutes(here, name) for name in names]))
    best = int(np.argmin(costs))
    return names[best], float(costs[best] / weights.sum())


class Halves:
    """A rule for what is too large to reckon: the box after which the least is still to come."""

    def __init__(self, left: Left) -> None:
        self._left = left
        self._known: dict[tuple[Region, str], float] = {}

    def best(self, region: Region, here: str) -> str:
        """The box of a region to look at first, standing somewhere."""
        left = self._left
        whole = left.share(region)

        def minutes(name: str) -> float:
            parts = (group.region for group in left.groups(name, region))
            to_come = sum(left.share(part) * self._to_come(part, name) for part in parts)
            return left.minutes(here, name) + to_come / whole

        return min(left.stops_of(region), key=minutes)

    def _to_come(self, region: Region, here: str) -> float:
        if self._left.is_told(region):
            return 0.0
        if (region, here) not in self._known:
            self._known[region, here] = self._reckoned(self._left.part(region), here)
        return self._known[region, here]

    def _reckoned(self, part: Left, here: str) -> float:
        """Minutes for a part: of all plans where it is small or does not branch, else by the bits it takes to tell."""
        reckoned = plan(part, here) if len(part.stops) <= _RECKONED_UP_TO or part.as_path() is not None else None
        if reckoned is not None:
            return reckoned.minutes
        return _OF_A_LOOK * _a_look(part, here) * part.bits(part.region)


def _a_look(part: Left, here: str) -> float:
    """Minutes of looking at one of several, the likelier the more it counts."""
    weights = [part.weight[Place(name)] + part.weight.get(Place(name, stretch=True), 0.0) for name in part.stops]
    minutes = [part.minutes(here, name) for name in part.stops]
    return sum(w * m for w, m in zip(weights, minutes, strict=True)) / (sum(weights) or 1.0)
