"""Readings of a spreadsheet against the record: where each was taken, with what, and what it corrects."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid5

from django.utils import timezone

from brought.models import BroughtFile
from crews.models import Crew
from evenprobe.formats import InstrumentEntry, PointEntry, parse, reading_at
from evenprobe.formats.tables import READINGS
from evenprobe.quantities import QUANTITIES
from exchange.rows.clock import not_ahead
from exchange.rows.corrections import Link, check_corrections
from exchange.rows.fates import Cannot, RowFate, fate_of, made_by, readable
from exchange.rows.own_ids import OwnIds, once
from exchange.rows.places import points_by_name
from exchange.rows.testers import TestersByLabel
from readings.models import Reading
from readings.services import content_of
from sites.models import Point, Site
from tables.readings import reading_entries

_AT_A_TIME = 900
_WAY = "point__circuit__board__supply__site__crew"
_BESIDE = {"id", "at", "site", "board", "circuit", "point", "tester", "by", "status", "corrects"}
"""What of a row is no part of what was measured."""
_STATUS = ("counts", "corrected", "withdrawn")


class Readings:
    """The rows of one file, of a site or of all of a crew's."""

    def __init__(self, crew: Crew, site: Site | None, rows: Sequence[RowFate], file: BroughtFile | None) -> None:
        self._file, self._rows = file, readable(rows)
        self._points = points_by_name(crew, site)
        self._now = timezone.now()
        times = [row.entry["at"] for row in self._rows if row.entry.get("at")]
        self._testers = TestersByLabel(crew, min([self._now, *times]))
        self._ids = OwnIds(crew, Reading, _WAY, (row.entry.get("id") for row in self._rows))
        self._entries: dict[UUID, PointEntry] = {}
        self._held: dict[str, InstrumentEntry] = {}
        self._kept: dict[tuple[Any, ...], dict[str, Any]] = {}
        self._lines: dict[UUID, int] = {}
        self._links: list[Link] = []
        self._depth: dict[UUID, int] = {}

    def look(self) -> None:
        """Give every row that could be read its fate, and what it makes."""
        for row in self._rows:
            with fate_of(row, READINGS):
                self._one(row)
        self._those_there()
        self._depth = check_corrections(self._links)

    def in_order(self) -> Iterator[Reading]:
        """What is to be written, each after what it corrects."""
        assert self._file is not None
        made: list[_Made] = made_by(self._rows)
        for one in sorted(made, key=lambda one: self._depth[one.id]):
            yield from one.rows(self._file)

    def _one(self, row: RowFate) -> None:
        entry = row.entry
        point = self._points.of(entry, "point")
        quantity, status = str(entry["quantity"]), _status(entry)
        at = not_ahead("taken at", entry.get("at"), self._now)
        if quantity not in QUANTITIES:
            raise Cannot(("quantity", f"must be one of {', '.join(QUANTITIES)}"))
        tester, held = self._testers.in_hand(entry.get("tester"), quantity, at)
        id_, known_as = self._ids.of(entry.get("id"), point.id, entry)
        once(self._lines, id_, row.line)
        content = {key: value for key, value in entry.items() if key not in _BESIDE}
        checked = self._checked(point, content, held)
        corrects = self._ids.of(entry["corrects"], point.id, {})[0] if entry.get("corrects") else None
        about = {
            "point_id": point.id,
            "tester_id": tester.id if tester else None,
            "taken_at": at,
            "known_as": known_as,
            "supersedes_id": corrects,
            "entry": checked,
            "held": held,
        }
        row.made = [_Made(id_, entry.get("by") or "", about, withdrawn=status == "withdrawn")]
        self._links.append(Link(row, id_, point.id, corrects, status))

    def _checked(self, point: Point, content: dict[str, Any], held: dict[str, Any]) -> dict[str, Any]:
        """As it is kept. The same seen at such a point with the same tester is checked once."""
        known = (point.kind, tuple(point.terminals), repr(held), repr(content))
        if known not in self._kept:
            read = reading_at(self._entry_of(point), {**content, "id": "r"}, self._instrument(held))
            self._kept[known] = content_of(read)
        return self._kept[known]

    def _entry_of(self, point: Point) -> PointEntry:
        if point.id not in self._entries:
            about = {"id": str(point.id), "kind": point.kind, "terminals": point.terminals}
            self._entries[point.id] = parse(PointEntry, about)
        return self._entries[point.id]

    def _instrument(self, held: dict[str, Any]) -> InstrumentEntry:
        known = repr(held)
        if known not in self._held:
            self._held[known] = parse(InstrumentEntry, {"id": "held", **held})
        return self._held[known]

    def _those_there(self) -> None:
        """Rows that are on record: the same, or otherwise and staying so."""
        new = {link.id: link.row for link in self._links if link.row.fate == "new"}
        for id_, there in self._on_record(list(new)):
            row = new[id_]
            row.fate = "here" if READINGS.agrees(row.entry, there) else "differs"

    def _on_record(self, ids: list[UUID]) -> Iterator[tuple[UUID, dict[str, Any]]]:
        for start in range(0, len(ids), _AT_A_TIME):
            asked = Reading.objects.filter(id__in=ids[start : start + _AT_A_TIME])
            there = list(asked.values_list("id", flat=True).order_by())
            yield from reading_entries(Reading.objects.filter(id__in=there)) if there else ()


def _status(entry: dict[str, Any]) -> str:
    status = str(entry.get("status") or _STATUS[0])
    if status not in _STATUS:
        raise Cannot(("status", f"must be one of {', '.join(_STATUS)}"))
    return status


@dataclass
class _Made:
    """A reading as it is to be written, with its withdrawal where it was withdrawn."""

    id: UUID
    by: str
    about: dict[str, Any]
    withdrawn: bool

    def rows(self, file: BroughtFile) -> Iterator[Reading]:
        whose = {"brought_id": file.id, "by_name": file.marked(self.by)}
        yield Reading(id=self.id, **self.about, **whose)
        if self.withdrawn:
            at = {key: self.about[key] for key in ("point_id", "tester_id", "taken_at")}
            yield Reading(id=uuid5(self.id, "withdrawn"), supersedes_id=self.id, **at, **whose)
