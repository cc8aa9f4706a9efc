"""Circuits of a spreadsheet against the record: supplies, boards, circuits and points by their names."""

from collections.abc import Sequence
from typing import Any, TypeVar
from uuid import UUID, uuid5

from django.db.models import Max

from brought.models import BroughtFile
from crews.models import Crew
from evenprobe.formats import FormatError, PointEntry, parse
from evenprobe.formats.supply import SupplyEntry
from evenprobe.formats.survey import CircuitEntry
from evenprobe.formats.tables import CIRCUITS
from evenprobe.formats.tables.columns import entry_problems
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS
from exchange.rows.fates import Cannot, RowFate
from exchange.rows.names import plain
from sites.models import Board, Circuit, Placed, Point, Site, Supply
from sites.services import LONGEST_NAME
from tables.others import circuit_row

Under = TypeVar("Under", Supply, Board, Circuit)
_USUAL_KIND = "outlet"
_OF_CIRCUIT = ("rating_a", "conductor", "residual_ma", "curve")


class Circuits:
    """The rows of one file, of a site or of all of a crew's."""

    def __init__(self, crew: Crew, site: Site | None, rows: Sequence[RowFate], file: BroughtFile | None) -> None:
        self._file, self._rows, self._only = file, [row for row in rows if row.fate != "cannot"], site
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
            try:
                self._one(row)
            except Cannot as error:
                row.fate, row.problems, row.made = "cannot", error.problems, []
            except FormatError as error:
                row.fate, row.problems, row.made = "cannot", tuple(entry_problems(error, CIRCUITS.columns)), []

    def in_order(self) -> list[Placed]:
        """What is to be written, each after what it hangs on."""
        made = {one.pk: one for row in self._rows if row.fate == "new" for one in row.made}
        order = [Supply, Board, Circuit, Point]
        return sorted(made.values(), key=lambda one: order.index(type(one)))

    def _one(self, row: RowFate) -> None:
        entry = row.entry
        site = self._site(entry.get("site"))
        chain: list[Placed] = []
        supply = self._supply(site, entry, chain)
        board = self._under(self._boards, supply, entry["board"], "board", Board, {"supply": supply}, chain)
        about = {key: entry.get(key) for key in _OF_CIRCUIT}
        parse(CircuitEntry, about)
        fields = {"board": board, **{key: about[key] or "" for key in ("conductor", "curve")}}
        fields |= {key: about[key] for key in ("rating_a", "residual_ma")}
        circuit = self._under(self._circuits, board, entry["circuit"], "circuit", Circuit, fields, chain)
        self._point(row, circuit, supply, chain)

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

    def _supply(self, site: Site, entry: dict[str, Any], chain: list[Placed]) -> Supply:
        """The one that is named, the only one there is, or a new one of a system the practice has."""
        name, own = entry.get("supply"), [s for (of, _), s in self._supplies.items() if of == site.id]
        if not name and len(own) == 1:
            return own[0]
        if not name and len(own) > 1:
            raise Cannot(("supply", f"{site.name} has several: say which"))
        if name and (site.id, plain(name)) in self._supplies:
            there = self._supplies[site.id, plain(name)]
            if there._state.adding and not _listed(there, chain):
                chain.append(there)
            return there
        if not entry.get("system") or not entry.get("earthing"):
            raise Cannot(("supply", f"{site.name} has no such supply: a new one needs its system and earthing"))
        checked = parse(SupplyEntry, {"system": entry["system"], "earthing": entry["earthing"]})
        if checked.system not in PRACTICES[site.practice].supplies:
            usual = ", ".join(PRACTICES[site.practice].supplies)
            raise Cannot(("system", f"is not used with this practice; use one of {usual}"))
        fields = {"site": site, "system": checked.system, "earthing": str(checked.earthing)}
        called = name or f"{checked.system} V, {checked.earthing}"
        return self._under(self._supplies, site, called, "supply", Supply, fields, chain)

    def _under(
        self,
        known: dict[tuple[UUID, str], Under],
        over: Any,
        name: str,
        what: str,
        model: type[Under],
        fields: dict[str, Any],
        chain: list[Placed],
    ) -> Under:
        """The one of that name under another, made where there is none."""
        key = (over.id, plain(name))
        if key not in known:
            id_ = uuid5(over.id, f"{what} {plain(name)}")
            position = sum(1 for of, _ in known if of == over.id) + 1
            known[key] = model(id=id_, name=_named(name, what), position=position, brought=self._file, **fields)
        if known[key]._state.adding:
            chain.append(known[key])
        return known[key]

    def _point(self, row: RowFate, circuit: Circuit, supply: Supply, chain: list[Placed]) -> None:
        entry = row.entry
        name = _named(entry["point"], "point")
        key = (circuit.id, plain(name))
        if key in self._lines:
            row.fate, row.problems = "twice", (("", f"the same point as on line {self._lines[key]}"),)
            return
        self._lines[key] = row.line
        there = self._points.get(key)
        if there is not None:
            row.fate = "here" if _says(entry, there) else "differs"
            return
        about = {"kind": entry.get("kind") or _USUAL_KIND, "terminals": entry.get("terminals") or _contacts(supply)}
        checked = parse(PointEntry, {"id": name, **about})
        parse(CircuitEntry, {"length_m": entry.get("length_m")})
        self._last[circuit.id] = self._last.get(circuit.id, 0) + 1
        point = Point(
            id=uuid5(circuit.id, f"point {plain(name)}"), circuit=circuit, name=name, kind=str(checked.kind),
            terminals=[str(t) for t in checked.terminals], length_m=entry.get("length_m"),
            room=_named(entry.get("room") or "", "room"), position=self._last[circuit.id],
            protected_by=_named(entry.get("protected_by") or "", "behind"), brought=self._file,
        )  # fmt: skip
        row.made = [*chain, point]


def _contacts(supply: Supply) -> list[str]:
    """What an outlet of such a supply usually has."""
    practice = PRACTICES[supply.site.practice]
    return list(practice.contacts_on(SYSTEMS[supply.system])[0].terminals)


def _says(entry: dict[str, Any], there: Point) -> bool:
    """Whether the record says of the point what the row does, wherever it says anything."""
    own = circuit_row(there)
    wanted = [column for column in CIRCUITS.columns if not column.derived and column.written(entry) is not None]
    return all(plain(column.written(entry)) == plain(column.written(own)) for column in wanted)


def _listed(one: Placed, chain: list[Placed]) -> bool:
    return any(other is one for other in chain)


def _named(name: str, what: str) -> str:
    if len(name) > LONGEST_NAME:
        raise Cannot((what, f"is longer than {LONGEST_NAME} characters"))
    return name.strip()
