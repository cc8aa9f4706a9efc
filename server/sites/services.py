"""What may be done with sites. Every write is one transaction, and the same write twice is one record."""

from collections.abc import Callable
from typing import Any, ParamSpec, TypeVar
from uuid import UUID

from django.db import transaction
from django.db.models import Max, QuerySet
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from crews.models import Crew
from evenprobe.formats import parse
from evenprobe.formats.supply import SupplyEntry
from evenprobe.formats.survey import CircuitEntry, PointEntry
from evenprobe.practices import PRACTICES
from evenprobe.wiring.points import board_ends
from sites.models import Board, Circuit, Placed, Point, Site, Supply

PlacedUnder = TypeVar("PlacedUnder", Supply, Board, Circuit, Point)

LONGEST_NAME = 120
_WAY_TO_CREW: dict[type, str] = {
    Site: "crew",
    Supply: "site__crew",
    Board: "supply__site__crew",
    Circuit: "board__supply__site__crew",
    Point: "circuit__board__supply__site__crew",
}


def site_of(crew: Crew, site_id: UUID) -> Site:
    site = Site.objects.filter(crew=crew, id=site_id).first()
    if site is None:
        raise NotFoundHere("site")
    return site


def sites_of(crew: Crew) -> QuerySet[Site]:
    return Site.objects.filter(crew=crew)


def find(
    crew: Crew,
    model: type[PlacedUnder],
    record_id: UUID,
    with_what: Callable[[QuerySet[PlacedUnder]], QuerySet[PlacedUnder]] | None = None,
) -> PlacedUnder:
    """The crew's own record, `with_what` is looked up beside it. Raises NotFoundHere for anybody else's."""
    way = _WAY_TO_CREW[model]
    rows = model._default_manager.filter(**{way: crew}, id=record_id).select_related(way)
    found = (with_what(rows) if with_what else rows).first()
    if found is None:
        raise NotFoundHere(model.__name__.lower())
    return found


@transaction.atomic
def put_site(crew: Crew, site_id: UUID, name: str, practice: str) -> Site:
    if practice not in PRACTICES:
        raise Refused(("practice", f"must be one of {', '.join(PRACTICES)}"))
    existing = Site.objects.filter(id=site_id).first()
    if existing is not None and existing.crew_id != crew.id:
        raise Refused(("id", "this id is taken"), status=409)
    if existing is not None and existing.practice != practice and existing.supplies.exists():
        raise Refused(("practice", "the practice is fixed once a supply is entered"))
    site = existing or Site(id=site_id, crew=crew)
    site.name, site.practice = _name(name), practice
    site.save()
    return site


def supply_as(crew: Crew, supply_id: UUID, site_id: UUID, name: str, system: str, earthing: str) -> Supply:
    """The supply as it would be, not saved. Raises Refused or FormatError for one that there cannot be."""
    site = site_of(crew, site_id)
    checked = parse(SupplyEntry, {"system": system, "earthing": earthing})
    if checked.system not in PRACTICES[site.practice].supplies:
        usual = ", ".join(PRACTICES[site.practice].supplies)
        raise Refused(("system", f"{system} is not used with this practice; use one of {usual}"))
    supply = _new_or_own(crew, Supply, supply_id, site=site)
    supply.name, supply.system, supply.earthing = _name(name), checked.system, str(checked.earthing)
    return supply


def _board_as(crew: Crew, board_id: UUID, supply_id: UUID, name: str) -> Board:
    """The board as it would be, not saved. Raises Refused for one that there cannot be."""
    board = _new_or_own(crew, Board, board_id, supply=find(crew, Supply, supply_id))
    board.name = _name(name)
    return board


def circuit_as(
    crew: Crew,
    circuit_id: UUID,
    board_id: UUID,
    name: str,
    rating_a: float | None,
    conductor: str | None,
    residual_ma: float | None = None,
    curve: str | None = None,
) -> Circuit:
    """The circuit as it would be, not saved. Raises Refused or FormatError for one that there cannot be."""
    entry = {"rating_a": rating_a, "conductor": conductor or None, "residual_ma": residual_ma, "curve": curve or None}
    checked = parse(CircuitEntry, entry)
    board = find(crew, Board, board_id)
    circuit = _new_or_own(crew, Circuit, circuit_id, board=board)
    circuit.name, circuit.rating_a, circuit.conductor = _name(name), checked.rating_a, checked.conductor or ""
    circuit.residual_ma, circuit.curve = checked.residual_ma, checked.curve or ""
    return circuit


def point_as(
    crew: Crew,
    point_id: UUID,
    circuit_id: UUID,
    name: str,
    kind: str,
    terminals: list[str],
    length_m: float | None,
    room: str = "",
) -> Point:
    """The point as it would be, not saved. Raises Refused or FormatError for one that there cannot be."""
    circuit = find(crew, Circuit, circuit_id)
    entry = {"id": str(point_id), "kind": kind, "terminals": terminals, "room": room.strip() or None}
    checked = parse(PointEntry, entry)
    length = parse(CircuitEntry, {"length_m": length_m}).length_m
    point = _new_or_own(crew, Point, point_id, circuit=circuit)
    ends = {end for entry in _entries(point) for end in (entry.get("from"), entry.get("to"))}
    stay = {None, "REF", *checked.terminals, *map(str, board_ends(checked.terminals))}
    orphaned = {str(end).removeprefix("BOARD-") for end in ends - stay}
    if orphaned:
        raise Refused(("terminals", f"readings were taken at {', '.join(sorted(map(str, orphaned)))}; keep it"))
    point.name, point.kind, point.length_m = _name(name), str(checked.kind), length
    point.room = checked.room or ""
    point.terminals = [str(t) for t in checked.terminals]
    return point


_PARENT: dict[type, str] = {Supply: "site", Board: "supply", Circuit: "board", Point: "circuit"}
_As = ParamSpec("_As")


def _put(as_it_would_be: Callable[_As, PlacedUnder]) -> Callable[_As, PlacedUnder]:
    """Save it as it would be, in one transaction; what is new comes last of those that hang on the same."""

    @transaction.atomic
    def put(*told: _As.args, **more: _As.kwargs) -> PlacedUnder:
        placed = as_it_would_be(*told, **more)
        if placed._state.adding:
            parent = _PARENT[type(placed)]
            siblings = type(placed)._default_manager.filter(**{parent: getattr(placed, parent)})
            placed.position = int(siblings.aggregate(last=Max("position"))["last"] or 0) + 1
        placed.save()
        return placed

    return put


put_supply = _put(supply_as)
put_board = _put(_board_as)
put_circuit = _put(circuit_as)
put_point = _put(point_as)


def _entries(point: Point) -> list[dict[str, Any]]:
    if point._state.adding:
        return []
    return [dict(reading.entry) for reading in point.readings.exclude(entry=None)]


def _new_or_own(crew: Crew, model: type[PlacedUnder], record_id: UUID, **parent: Any) -> PlacedUnder:
    """The record of that id if it is the crew's, new if there is none. Where it hangs can be changed."""
    existing = model._default_manager.filter(id=record_id).first()
    if existing is None:
        return model(id=record_id, **parent)
    own = find(crew, model, record_id)
    for name, value in parent.items():
        setattr(own, name, value)
    return own


def _name(name: str) -> str:
    name = name.strip()
    if not name:
        raise Refused(("name", "needs a name"))
    if len(name) > LONGEST_NAME:
        raise Refused(("name", f"is longer than {LONGEST_NAME} characters"))
    return name


_PLACES: dict[str, type[Placed]] = {
    "site": Site, "supply": Supply, "board": Board, "circuit": Circuit, "point": Point,
}  # fmt: skip
"""What can be taken out of use, as its route has it."""


@transaction.atomic
def retire(crew: Crew, what: str, place_id: UUID, *, retired: bool) -> Placed:
    """Take a place out of use, or bring it back; what was recorded there stays. The same again changes nothing."""
    model = _PLACES.get(what)
    if model is None:
        raise NotFoundHere(what)
    found = model._default_manager.filter(**{_WAY_TO_CREW[model]: crew}, pk=place_id).first()
    if found is None:
        raise NotFoundHere(what)
    if retired != (found.retired_at is not None):
        found.retired_at = timezone.now() if retired else None
        found.save()
    return found
