"""Readings of a spreadsheet against the record: where each was taken, with what, and what it corrects."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid5

from django.utils import timezone

from brought.models import BroughtFile
from crews.models import Crew
from evenprobe.formats import FormatError, InstrumentEntry, PointEntry, parse, reading_at
from evenprobe.formats.tables import READINGS
from evenprobe.formats.tables.columns import entry_problems
from evenprobe.quantities import QUANTITIES
from exchange.rows.fates import Cannot, RowFate
from exchange.rows.own_ids import OwnIds, once
from exchange.rows.places import points_by_name
from exchange.rows.testers import TestersByLabel
from readings.models import Reading
from readings.services import content_of
from sites.models import Point, Site
from tables.readings import reading_entries

_AHEAD = timedelta(minutes=2)
"""A file may be this much ahead of the server's clock."""
_AT_A_TIME = 900
_WAY = "point__circuit__board__supply__site__crew"
_BESIDE = {"id", "at", "site", "board", "circuit", "point", "tester", "by", "status", "corrects"}
"""What of a row is no part of what was measured."""
_STATUS = ("counts", "corrected", "withdrawn")


class Readings:
    """The rows of one file, of a site or of all of a crew's."""

    def __init__(self, crew: Crew, site: Site | None, rows: Sequence[RowFate], file: BroughtFile | None) -> None:
        self._crew, self._file, self._rows = crew, file, [row for row in rows if row.fate != "cannot"]
        self._points = points_by_name(crew, site)
        self._now = timezone.now()
        times = [row.entry["at"] for row in self._rows if isinstance(row.entry.get("at"), datetime)]
        self._testers = TestersByLabel(crew, min([self._now, *times]))
        self._ids = OwnIds(crew, Reading, _WAY, (row.entry.get("id") for row in self._rows))
        self._entries: dict[UUID, PointEntry] = {}
        self._held: dict[str, InstrumentEntry] = {}
        self._kept: dict[tuple[Any, ...], dict[str, Any]] = {}
        self._lines: dict[UUID, int] = {}
        self._named = {str(row.entry["id"]): row for row in self._rows if row.entry.get("id")}
        self._depth: dict[UUID, int] = {}
        self._corrected = {row.entry["corrects"] for row in self._rows if row.entry.get("corrects")}

    def look(self) -> None:
        """Give every row that could be read its fate, and what it makes."""
        for row in self._rows:
            try:
                self._one(row)
            except Cannot as error:
                row.fate, row.problems = "cannot", error.problems
            except FormatError as error:
                row.fate, row.problems = "cannot", tuple(entry_problems(error, READINGS.columns))
        self._those_there()
        self._those_corrected()

    def _one(self, row: RowFate) -> None:
        entry = row.entry
        point = self._points.of(entry, "point")
        quantity, at, status = str(entry["quantity"]), self._time(entry), self._status(entry)
        if quantity not in QUANTITIES:
            raise Cannot(("quantity", f"must be one of {', '.join(QUANTITIES)}"))
        tester, held = self._testers.in_hand(entry.get("tester"), quantity, at)
        content = {key: value for key, value in entry.items() if key not in _BESIDE}
        id_, known_as = self._ids.of(entry.get("id"), point.id, entry)
        self._once(row, id_)
        if row.fate == "twice":
            return
        checked = self._checked(point, content, held)
        corrects = self._ids.of(entry["corrects"], point.id, {})[0] if entry.get("corrects") else None
        about = {"point_id": point.id, "tester_id": tester.id if tester else None, "taken_at": at}
        of_it = {"known_as": known_as, "supersedes_id": corrects, "entry": checked, "held": held}
        row.made = [_Made(id_, entry.get("by") or "", about | of_it, withdrawn=status == "withdrawn")]

    def _once(self, row: RowFate, id_: UUID) -> None:
        try:
            once(self._lines, id_, row.line)
        except Cannot as error:
            row.fate, row.problems = "twice", error.problems

    def _time(self, entry: dict[str, Any]) -> datetime:
        at = entry.get("at")
        if at is None:
            raise Cannot(("taken at", "is missing: a reading that says no time is as old as anything"))
        found: datetime = at
        if found > self._now + _AHEAD:
            raise Cannot(("taken at", f"{found.isoformat()} is still to come"))
        return found

    def _status(self, entry: dict[str, Any]) -> str:
        status = str(entry.get("status") or _STATUS[0])
        if status not in _STATUS:
            raise Cannot(("status", f"must be one of {', '.join(_STATUS)}"))
        if status == "corrected" and entry.get("id") not in self._corrected:
            raise Cannot(("status", "says that it was corrected, and no row of the file corrects it"))
        return status

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
        new = {row.made[0].id: row for row in self._rows if row.fate == "new"}
        for id_, there in self._on_record(list(new)):
            row = new[id_]
            row.fate = "here" if READINGS.agrees(row.entry, there) else "differs"
            row.made = []

    def _on_record(self, ids: list[UUID]) -> Iterator[tuple[UUID, dict[str, Any]]]:
        for start in range(0, len(ids), _AT_A_TIME):
            asked = Reading.objects.filter(id__in=ids[start : start + _AT_A_TIME])
            there = list(asked.values_list("id", flat=True).order_by())
            yield from reading_entries(Reading.objects.filter(id__in=there)) if there else ()

    def _those_corrected(self) -> None:
        """What a correction corrects has to be there, at the same point, and corrected by nothing else."""
        made = {row.made[0].id: row for row in self._rows if row.made}
        asked = {row.made[0].corrects: row for row in self._rows if row.made and row.made[0].corrects}
        there = {r.id: r for r in Reading.objects.filter(id__in=asked).select_related("superseded_by")}
        for id_, row in asked.items():
            own = made[id_].made[0] if id_ in made else there.get(id_)
            if own is None or own.point_id != row.made[0].point_id:
                self._refuse(row, "no such reading at this point")
            elif id_ in there and hasattr(there[id_], "superseded_by"):
                self._refuse(row, "it was corrected or withdrawn already")
        twice = [row for row in self._rows if row.made and asked.get(row.made[0].corrects, row) is not row]
        for row in twice:
            self._refuse(row, "another row of the file corrects the same")

        self._put_in_order()

    def _put_in_order(self) -> None:
        """How many corrections come before each; those that go in a circle come before none."""
        by_id = {row.made[0].id: row for row in self._rows if row.made}
        for row in by_id.values():
            path: list[RowFate] = []
            at: RowFate | None = row
            while at is not None and at.made[0].id not in self._depth and at not in path:
                path.append(at)
                at = by_id.get(at.made[0].corrects)
            if at in path:
                for one in path:
                    self._refuse(one, "corrections go in a circle")
                return self._put_in_order()
            start = -1 if at is None else self._depth[at.made[0].id]
            self._depth |= {one.made[0].id: start + n for n, one in enumerate(reversed(path), 1)}
        return None

    @staticmethod
    def _refuse(row: RowFate, why: str) -> None:
        row.fate, row.problems, row.made = "cannot", (("corrects", why),), []

    def in_order(self) -> Iterator[Reading]:
        """What is to be written, each after what it corrects."""
        assert self._file is not None
        made: list[_Made] = [one for row in self._rows if row.fate == "new" for one in row.made]
        for one in sorted(made, key=lambda one: self._depth[one.id]):
            yield from one.rows(self._file)


@dataclass
class _Made:
    """A reading as it is to be written, with its withdrawal where it was withdrawn."""

    id: UUID
    by: str
    about: dict[str, Any]
    withdrawn: bool

    @property
    def corrects(self) -> Any:
        return self.about["supersedes_id"]

    @property
    def point_id(self) -> Any:
        return self.about["point_id"]

    def rows(self, file: BroughtFile) -> Iterator[Reading]:
        whose = {"brought_id": file.id, "by_name": file.marked(self.by)}
        yield Reading(id=self.id, **self.about, **whose)
        if self.withdrawn:
            at = {key: self.about[key] for key in ("point_id", "tester_id", "taken_at")}
            yield Reading(id=uuid5(self.id, "withdrawn"), supersedes_id=self.id, **at, **whose)
