"""Circuits of a spreadsheet against the record: supplies, boards, circuits and points by their names."""

from collections.abc import Sequence
from typing import Any, TypeVar
from uuid import UUID, uuid5

from django.db.models import Max

from brought.models import BroughtFile
from crews.models import Crew
from evenprobe.formats import PointEntry, parse
from evenprobe.formats.supply import SupplyEntry
from evenprobe.formats.survey import CircuitEntry
from evenprobe.formats.tables import CIRCUITS
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS
from exchange.rows.fates import Cannot, RowFate, fate_of, made_by, readable
from exchange.rows.names import plain
from exchange.rows.own_ids import once
from sites.models import Board, Circuit, Placed, Point, Site, Supply
from sites.services import LONGEST_NAME
from tables.others import circuit_row

Under = TypeVar("Under", Supply, Board, Circuit)
_USUAL_KIND = "outlet"
_ORDER = (Supply, Board, Circuit, Point)
_OF_CIRCUIT = ("rating_a", "conductor", "residual_ma", "curve")


class Circuits:
    """The rows of one file, of a site or of all of a crew's."""

    def __init__(self, crew: Crew, site: Site | None, rows: Sequence[RowFate], file: BroughtFile | None) -> None:
        self._file, self._rows, self._only = file, readable(rows), site
        self._sites = {plain(one.name): one for one in Site.objects.filter(crew=crew, retired_at=None)}
        own = {"supply__site__crew": crew}
        self._supplies = {(s.site_id, plain(s.name)): s for s in Supply.objects.filter(site__crew=crew)}
        self._boards = {(b.supply_id, plain(b.name)): b for b in Board.objects.filter(**own)}
        circuits = Circuit.objects.filter(board__supply__site__crew=crew)
        self._circuits = {(c.board_id, plain(c.name)): c for c in circuits}
        points = Point.objects.filter(circuit__board__supply__site__crew=crew)
        self._points = {
            (p.circuit_id, plain(p.name)): p for p in points.select_related("circuit__board__supply__site", "brought")
        }
        positions = points.values("circuit_id").annotate(last=Max("position"))
        self._last = {row["circuit_id"]: row["last"] for row in positions}
        self._lines: dict[tuple[UUID, str], int] = {}

    def look(self) -> None:
        """Give every row that could be read its fate, and what it makes."""
        for row in self._rows:
            with fate_of(row, CIRCUITS):
                self._one(row)

    def in_order(self) -> list[Placed]:
        """What is to be written, each after what it hangs on."""
        return sorted(made_by(self._rows), key=lambda one: _ORDER.index(type(one)))

    def _one(self, row: RowFate) -> None:
        entry = row.entry
        supply = self._supply(self._site(entry.get("site")), entry)
        board = self._under(self._boards, supply, entry["board"], Board, {"supply": supply})
        about = {key: entry.get(key) for key in _OF_CIRCUIT}
        parse(CircuitEntry, about)
        fields = {key: about[key] or "" if key in ("conductor", "curve") else about[key] for key in _OF_CIRCUIT}
        circuit = self._under(self._circuits, board, entry["circuit"], Circuit, {"board": board, **fields})
        _agree(circuit, about, f"the circuit {circuit.name}")
        point = self._point(row, circuit, supply)
        if point is not None:
            row.made = [one for one in (supply, board, circuit, point) if one._state.adding]

    def _site(self, name: str | None) -> Site:
        if self._only is not None:
            if name and plain(name) != plain(self._only.name):
                raise Cannot(("site", f"is “{name}”, and these rows go to {self._only.name}"))
            return self._only
        if not name:
            raise Cannot(("site", "is missing: say to which site these rows belong"))
        found = self._sites.get(plain(name))
        if found is None:
            raise Cannot(("site", f"there is no site called “{name}” here: make it first"))
        return found

    def _supply(self, site: Site, entry: dict[str, Any]) -> Supply:
        """The one that is named, the only one there is, or a new one of a system the practice has."""
        name, own = entry.get("supply"), [s for (of, _), s in self._supplies.items() if of == site.id]
        about = {"system": entry.get("system"), "earthing": entry.get("earthing")}
        if not name and len(own) > 1:
            raise Cannot(("supply", f"{site.name} has several: say which"))
        there = self._supplies.get((site.id, plain(name))) if name else next(iter(own), None)
        if there is not None:
            _agree(there, about, f"the supply {there.name}")
            return _in_use(there)
        if not about["system"] or not about["earthing"]:
            raise Cannot(("supply", f"{site.name} has no such supply: a new one needs its system and earthing"))
        checked = parse(SupplyEntry, about)
        if checked.system not in PRACTICES[site.practice].supplies:
            usual = ", ".join(PRACTICES[site.practice].supplies)
            raise Cannot(("system", f"is not used with this practice; use one of {usual}"))
        fields = {"site": site, "system": checked.system, "earthing": str(checked.earthing)}
        return self._under(self._supplies, site, name or f"{checked.system} V, {checked.earthing}", Supply, fields)

    def _under(
        self, known: dict[tuple[UUID, str], Under], over: Any, name: str, model: type[Under], fields: dict[str, Any]
    ) -> Under:
        """The one of that name under another, made where there is none."""
        key, what = (over.id, plain(name)), model.__name__.lower()
        if key not in known:
            id_ = uuid5(over.id, f"{what} {plain(name)}")
            position = sum(1 for of, _ in known if of == over.id) + 1
            known[key] = model(id=id_, name=_named(name, what), position=position, brought=self._file, **fields)
        return _in_use(known[key])

    def _point(self, row: RowFate, circuit: Circuit, supply: Supply) -> Point | None:
        """A new one; none where it is there already."""
        entry = row.entry
        name = _named(entry["point"], "point")
        key = (circuit.id, plain(name))
        once(self._lines, key, row.line)
        there = self._points.get(key)
        if there is not None:
            row.fate = "here" if _says(entry, there) else "differs"
            return None
        about = {"kind": entry.get("kind") or _USUAL_KIND, "terminals": entry.get("terminals") or _contacts(supply)}
        checked = parse(PointEntry, {"id": name, **about})
        parse(CircuitEntry, {"length_m": entry.get("length_m")})
        self._last[circuit.id] = self._last.get(circuit.id, 0) + 1
        return Point(
            id=uuid5(circuit.id, f"point {plain(name)}"), circuit=circuit, name=name, kind=str(checked.kind),
            terminals=[str(t) for t in checked.terminals], length_m=entry.get("length_m"),
            room=_named(entry.get("room") or "", "room"), position=self._last[circuit.id],
            protected_by=_named(entry.get("protected_by") or "", "behind"), brought=self._file,
        )  # fmt: skip


def _contacts(supply: Supply) -> list[str]:
    """What an outlet of such a supply usually has."""
    practice = PRACTICES[supply.site.practice]
    return list(practice.contacts_on(SYSTEMS[supply.system])[0].terminals)


def _says(entry: dict[str, Any], there: Point) -> bool:
    """Whether the record says of the point what the row does, wherever it says anything."""
    own = circuit_row(there)
    wanted = [column for column in CIRCUITS.columns if not column.derived and column.written(entry) is not None]
    return all(plain(column.written(entry)) == plain(column.written(own)) for column in wanted)


def _agree(there: Supply | Circuit, about: dict[str, Any], what: str) -> None:
    """Raises Cannot where a row says otherwise of what is there already, or of what a line before has made."""
    for key, said in about.items():
        known = getattr(there, key)
        if said is not None and said != (known or None):
            raise Cannot((key, f"says {said}, and {what} has {'none' if known in (None, '') else known}"))


def _in_use(place: Under) -> Under:
    if place.retired_at is not None:
        raise Cannot((type(place).__name__.lower(), f"{place.name} is out of use here: bring it back first"))
    return place


def _named(name: str, what: str) -> str:
    if len(name) > LONGEST_NAME:
        raise Cannot((what, f"is longer than {LONGEST_NAME} characters"))
    return name.strip()
