"""A run of boxes and cable: a tree from the board, and what in it can be at fault.

A fault sits in a box or in a stretch of cable between a box and the one before it. How much each is suspected, before
anything is seen: a box counts one, a metre of cable two hundredths, each times its own suspicion.
"""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

BOARD = "board"

_STRETCH_SHARE_PER_M = 0.02
"""Of a box's weight, a metre of cable."""
OPEN_MINUTES, HIDDEN_MINUTES = 6.0, 25.0
"""To open a box, and one behind a wall or under a floor."""


@dataclass(frozen=True)
class Box:
    """A point of the run.

    Parameters
    ----------
    id
        Its name.
    after
        The point before it in cable order, or the board.
    length_m
        Of the cable between the two.
    suspicion, stretch_suspicion
        Of the box and of that cable, 1 where nothing says otherwise.
    open_minutes
        What opening it takes.
    """

    id: str
    after: str
    length_m: float
    suspicion: float = 1.0
    stretch_suspicion: float = 1.0
    open_minutes: float = OPEN_MINUTES


@dataclass(frozen=True, order=True)
class Place:
    """What can be at fault: a box, or the stretch that leads to it."""

    box: str
    stretch: bool = False


class RunError(ValueError):
    """A run that is no tree. `index`: which of its boxes it is, in the order they were given."""

    def __init__(self, index: int, why: str, key: str = "after") -> None:
        super().__init__(why)
        self.index, self.why, self.key = index, why, key


class Run:
    """Boxes as a tree from the board.

    Parameters
    ----------
    boxes
        In any order.
    walk_minutes_per_m
        What walking along the cable takes.

    Raises
    ------
    RunError
        Where they are no tree: an id twice, an unknown one, a loop, two roots.

    Examples
    --------
    >>> run = Run([Box("p1", "board", 8.0), Box("p2", "p1", 5.0)])
    >>> run.distance_m["p2"], run.path("p2"), run.is_line
    (13.0, ('p1', 'p2'), True)
    """

    def __init__(self, boxes: Iterable[Box], walk_minutes_per_m: float = 0.1) -> None:
        given = tuple(boxes)
        self.walk_minutes_per_m = walk_minutes_per_m
        self.box: Mapping[str, Box] = {box.id: box for box in given}
        self._check(given)
        self.after: Mapping[str, tuple[str, ...]] = {
            name: tuple(box.id for box in given if box.after == name) for name in (BOARD, *self.box)
        }
        self.boxes = tuple(self.box[name] for name in self._in_cable_order())
        if len(self.boxes) < len(given):
            placed = {box.id for box in self.boxes}
            index = next(i for i, box in enumerate(given) if box.id not in placed)
            raise RunError(index, f"{given[index].id} comes after itself: a loop that no board feeds")
        self.is_line = all(len(after) < 2 for after in self.after.values())

    def _check(self, given: tuple[Box, ...]) -> None:
        seen: set[str] = set()
        root = ""
        for index, box in enumerate(given):
            if box.id in seen or box.id == BOARD:
                raise RunError(index, f"{box.id!r} is there twice", "id")
            seen.add(box.id)
            if box.after == box.id:
                raise RunError(index, f"{box.id} comes after itself")
            if box.after != BOARD and box.after not in self.box:
                raise RunError(index, f"{box.after!r} is no point of this run")
            if box.after == BOARD and root:
                raise RunError(index, f"{root} is at the board already: two runs are two hunts")
            root = box.id if box.after == BOARD else root

    def _in_cable_order(self) -> Iterator[str]:
        ahead = list(self.after[BOARD])
        while ahead:
            name = ahead.pop(0)
            yield name
            ahead = [*self.after[name], *ahead]

    @cached_property
    def places(self) -> tuple[Place, ...]:
        """All that can be at fault, in cable order."""
        return tuple(place for box in self.boxes for place in (Place(box.id, stretch=True), Place(box.id)))

    @cached_property
    def distance_m(self) -> Mapping[str, float]:
        """Of cable from the board."""
        found = {BOARD: 0.0}
        for box in self.boxes:
            found[box.id] = found[box.after] + box.length_m
        return found

    def weight(self, place: Place) -> float:
        """How much it is suspected before anything is seen."""
        box = self.box[place.box]
        if place.stretch:
            return _STRETCH_SHARE_PER_M * box.length_m * box.stretch_suspicion
        return box.suspicion

    def path(self, name: str) -> tuple[str, ...]:
        """The boxes from the board to this one, with it."""
        return self._paths[name]

    @cached_property
    def _paths(self) -> Mapping[str, tuple[str, ...]]:
        found: dict[str, tuple[str, ...]] = {BOARD: ()}
        for box in self.boxes:
            found[box.id] = (*found[box.after], box.id)
        return found

    def beyond(self, name: str) -> frozenset[str]:
        """The box and every one that it feeds."""
        return self._beyond[name]

    @cached_property
    def _beyond(self) -> Mapping[str, frozenset[str]]:
        return {name: frozenset(box.id for box in self.boxes if name in self._paths[box.id]) for name in self.box}

    def walk_minutes(self, one: str, other: str) -> float:
        """Along the cable from one to the other."""
        shared = [a for a, b in zip(self.path(one), self.path(other), strict=False) if a == b]
        fork = shared[-1] if shared else BOARD
        metres = self.distance_m[one] + self.distance_m[other] - 2 * self.distance_m[fork]
        return metres * self.walk_minutes_per_m

    def next_towards(self, name: str, goal: str) -> str:
        """Of the boxes that one feeds directly, the one that the other hangs on."""
        return self.path(goal)[len(self.path(name))]
