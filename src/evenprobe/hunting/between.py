"""What lies between two neighbours that tell: half of each box, and the cable between; measured first, opened last.

A box has a joint on its feed side and one onward. What is measured at its face parts the two, so half of the box goes
with either side. When two neighbours are told apart, boxes are opened, the likeliest for its minutes first.
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.hunting.line import Line, Stop
from evenprobe.hunting.run import BOARD, Place, Run

Array = NDArray[Any]
PROBE_MINUTES = 2.0
"""To measure at a face, no box opened."""
_HALF = 0.5


@dataclass(frozen=True)
class Half:
    """A stretch, or one side of a box."""

    place: Place
    weight: float


@dataclass(frozen=True)
class Between:
    """What can be at fault beyond one place and up to another.

    Parameters
    ----------
    run
        The run.
    near
        The last place that is good, or the board.
    path
        Boxes from the first beyond `near` to the last that can be at fault, one feeding the next.
    is_bad
        Whether the last of them is known to be bad, so that only its feed side is in question.
    looked
        Boxes that were opened and are not it.
    probe_minutes
        To measure at a face.
    """

    run: Run
    near: str
    path: Sequence[str]
    is_bad: bool
    looked: Collection[str] = ()
    probe_minutes: float = PROBE_MINUTES

    @cached_property
    def halves(self) -> list[Half]:
        """In cable order."""
        found = [] if self.near == BOARD else [self._half(self.near)]
        for name in self.path:
            stretch = Place(name, stretch=True)
            found += [Half(stretch, self.run.weight(stretch)), self._half(name), self._half(name)]
        return found[:-1] if self.is_bad and self.path else found

    def _half(self, name: str) -> Half:
        weight = 0.0 if name in self.looked else _HALF * self.run.weight(Place(name))
        return Half(Place(name), weight)

    @cached_property
    def share(self) -> Mapping[Place, float]:
        """Of each place that is left; together one."""
        whole = sum(half.weight for half in self.halves)
        found: dict[Place, float] = {}
        for half in self.halves:
            if half.weight > 0:
                found[half.place] = found.get(half.place, 0.0) + half.weight / whole
        return found

    @property
    def to_measure(self) -> Sequence[str]:
        """Boxes between at which a measurement parts what is left."""
        return self.path[:-1] if self.is_bad else self.path

    def measured(self, here: str) -> tuple[str, float]:
        """Where to measure first and the minutes of the whole plan from here."""
        run, names = self.run, self.to_measure
        metres = run.distance_m
        first = 0 if self.near == BOARD else 1
        stops = []
        for number, name in enumerate(names):
            parts_at = first + 3 * number + 2
            stops.append(Stop(metres[name], self.probe_minutes, parts_at, parts_at))
        weights = np.array([half.weight for half in self.halves])
        ends = metres[self.near], metres[self.path[-1]]
        line = Line(weights, stops, run.walk_minutes_per_m, *ends, self._last_steps(len(stops)))
        costs = line.first_costs(np.array([run.walk_minutes(here, name) for name in names]))
        best = int(np.argmin(costs))
        return names[best], float(costs[best] / weights.sum())

    def _last_steps(self, stops: int) -> Array:
        bounds = [self.near, *self.path]
        last = np.zeros((stops + 1, 2))
        for number in range(stops + 1):
            one = bounds[number]
            other = bounds[number + 1] if number + 1 < len(bounds) else None
            is_bad = number < stops or self.is_bad
            part = Between(self.run, one, (other,) if other else (), is_bad, self.looked)
            weight = sum(half.weight for half in part.halves)
            last[number] = [weight * part.opened(here)[1] for here in (one, other or one)]
        return last

    def opened(self, here: str) -> tuple[str | None, float]:
        """Which box to open first where nothing is left to measure, and the minutes until it is found."""
        share = dict(self.share)
        first, minutes, chance = None, 0.0, 1.0
        while len(share) > 1:
            boxes = [place for place in share if not place.stretch]
            box = max(boxes, key=lambda place: (share[place] / self._minutes_to(here, place.box), place.box))
            minutes += chance * self._minutes_to(here, box.box)
            chance -= share.pop(box)
            first, here = first or box.box, box.box
        return first, minutes

    def _minutes_to(self, here: str, name: str) -> float:
        return self.run.walk_minutes(here, name) + self.run.box[name].open_minutes

    def in_order(self, here: str) -> float:
        """Minutes expected by opening one after another from the feed on."""
        minutes, chance = 0.0, 1.0
        boxes = [name for name in dict.fromkeys((self.near, *self.path)) if Place(name) in self.share]
        for name in boxes:
            minutes += chance * self._minutes_to(here, name)
            chance -= self.share[Place(name)] + self.share.get(Place(name, stretch=True), 0.0)
            here = name
        return minutes
