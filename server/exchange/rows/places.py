"""Where a row of a spreadsheet belongs: sites, boards, circuits and points of a crew by their names."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from typing import Any, Generic, TypeVar

from crews.models import Crew
from exchange.rows.fates import Cannot
from exchange.rows.names import plain
from sites.models import Circuit, Point, Site

Place = TypeVar("Place", Point, Circuit)
_OVER = ("site", "board", "circuit")


class _ByName(Generic[Place]):
    """Places by their own name and by those of what they hang on."""

    def __init__(self, what: str, places: Iterable[tuple[Place, str, Sequence[str]]]) -> None:
        """`places`: each with its own name, and those over it in the order of `_OVER`."""
        self._what = what
        self._named: dict[str, list[tuple[Place, dict[str, str]]]] = defaultdict(list)
        for place, name, over in places:
            self._named[plain(name)].append((place, dict(zip(_OVER, map(plain, over), strict=False))))
        self._found: dict[tuple[str | None, ...], Place] = {}

    def of(self, entry: dict[str, Any], own: str) -> Place:
        """The one a row means. Raises Cannot where it is none or several. `own`: the key of its own name."""
        name = str(entry[own])
        asked: dict[str, Any] = {over: entry.get(over) for over in _OVER if over != self._what}
        known = (name, *asked.values())
        if known not in self._found:
            self._found[known] = self._looked_up(name, {over: said for over, said in asked.items() if said})
        return self._found[known]

    def _looked_up(self, name: str, asked: dict[str, str]) -> Place:
        called = self._named.get(plain(name), [])
        if not called:
            raise Cannot((self._what, f"there is no {self._what} called “{name}” here: bring the circuits in first"))
        for over, said in asked.items():
            fits = [(place, its) for place, its in called if its.get(over) == plain(said)]
            if not fits:
                raise Cannot((over, f"no {self._what} called “{name}” is on “{said}”"))
            called = fits
        if len(called) > 1:
            also = " or ".join(over for over in _OVER if over not in asked and over != self._what)
            raise Cannot(
                (self._what, f"{len(called)} are called “{name}”: a column for {also or 'its id'} tells which")
            )
        return called[0][0]


def points_by_name(crew: Crew, site: Site | None) -> _ByName[Point]:
    """Points in use, of a site or of all."""
    points = Point.objects.in_use().filter(circuit__board__supply__site__crew=crew)
    if site is not None:
        points = points.filter(circuit__board__supply__site=site)
    return _ByName(
        "point",
        (
            (p, p.name, (p.circuit.board.supply.site.name, p.circuit.board.name, p.circuit.name))
            for p in points.select_related("circuit__board__supply__site")
        ),
    )


def circuits_by_name(crew: Crew, site: Site | None) -> _ByName[Circuit]:
    """Circuits in use, of a site or of all."""
    circuits = Circuit.objects.filter(board__supply__site__crew=crew, retired_at=None)
    if site is not None:
        circuits = circuits.filter(board__supply__site=site)
    return _ByName(
        "circuit",
        (
            (c, c.name, (c.board.supply.site.name, c.board.name))
            for c in circuits.select_related("board__supply__site").prefetch_related("points")
        ),
    )
