"""Dead tests of a spreadsheet against the record: on which circuit, on which sheet, and what was typed of each."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any
from uuid import UUID

from django.utils import timezone

from brought.models import BroughtFile
from crews.models import Crew
from evenprobe.formats.tables import DEAD_TEST_ROWS
from exchange.rows.clock import not_ahead
from exchange.rows.fates import Cannot, RowFate, fate_of, made_by, readable
from exchange.rows.own_ids import OwnIds, once
from exchange.rows.places import circuits_by_name
from exchange.rows.testers import TestersByLabel
from sheets.completing import check_entry, checked
from sheets.models import Sheet, SheetEntry
from sites.models import Circuit, Site
from tables.others import dead_test_row

_SITE = "circuit__board__supply__site"
_BESIDE = {"id", "made at", "site", "board", "circuit name", "sheet", "line", "point", "tester", "by"}
"""What of a row is no part of the test."""


class DeadTests:
    """The rows of one file, of a site or of all of a crew's. A row that names no sheet goes on one of its day."""

    def __init__(self, crew: Crew, site: Site | None, rows: Sequence[RowFate], file: BroughtFile | None) -> None:
        self._file, self._rows = file, readable(rows)
        self._circuits = circuits_by_name(crew, site)
        self._now = timezone.now()
        times = [row.entry["made at"] for row in self._rows if row.entry.get("made at")]
        self._testers = TestersByLabel(crew, min([self._now, *times]))
        ids = [row.entry.get("id") for row in self._rows]
        self._ids = OwnIds(crew, SheetEntry, f"sheet__{_SITE}__crew", ids)
        self._sheet_ids = OwnIds(crew, Sheet, f"{_SITE}__crew", (row.entry.get("sheet") for row in self._rows))
        own = SheetEntry.objects.filter(**{f"sheet__{_SITE}__crew": crew}, entry__type="tested")
        beside = own.select_related(f"sheet__{_SITE}", "tester", "brought").prefetch_related("sheet__circuit__points")
        self._there = {entry.id: dead_test_row(entry) for entry in beside} if self._rows else {}
        self._sheets = {sheet.id: sheet for sheet in Sheet.objects.filter(**{f"{_SITE}__crew": crew})}
        self._lines: dict[UUID, int] = {}

    def look(self) -> None:
        """Give every row that could be read its fate, and what it makes."""
        for row in self._rows:
            with fate_of(row, DEAD_TEST_ROWS):
                self._one(row)

    def in_order(self) -> list[Sheet | SheetEntry]:
        """Sheets before what is on them."""
        return sorted(made_by(self._rows), key=lambda one: isinstance(one, SheetEntry))

    def _one(self, row: RowFate) -> None:
        entry = row.entry
        circuit = self._circuits.of(entry, "circuit name")
        at = not_ahead("made at", entry.get("made at"), self._now)
        test = {key: value for key, value in entry.items() if key not in _BESIDE}
        id_, known_as = self._ids.of(entry.get("id"), circuit.id, {**test, "at": at.isoformat()})
        once(self._lines, id_, row.line)
        if id_ in self._there:
            row.fate = "here" if DEAD_TEST_ROWS.agrees(entry, self._there[id_]) else "differs"
            return
        kept = checked(circuit.board.supply.site.practice, test)
        content = kept.model_dump(mode="json", by_alias=True, exclude_none=True, exclude={"id", "at", "by"})
        point, line = self._point(circuit, entry), entry.get("line")
        named = f"{line} {point}" if line and point else line
        whole = {"type": "tested", "line": named, "point": point, "test": content}
        said = {key: value for key, value in whole.items() if value is not None}
        check_entry(id_, said)
        tester = self._testers.called(entry.get("tester"))
        held = self._testers.held(tester, at) if tester else None
        sheet = self._sheet(circuit, entry.get("sheet"), at)
        row.made = [
            *([sheet] if sheet._state.adding else []),
            SheetEntry(
                id=id_, known_as=known_as, sheet=sheet, at=at, tester=tester, held=held,
                entry=said, brought=self._file, by_name=self._marked(entry.get("by")),
            ),
        ]  # fmt: skip

    def _marked(self, name: str | None) -> str:
        return self._file.marked(name or "") if self._file else name or ""

    def _sheet(self, circuit: Circuit, written: str | None, at: datetime) -> Sheet:
        of_the_day = {"brought": at.date().isoformat()}
        id_, known_as = self._sheet_ids.of(written, circuit.id, of_the_day)
        there = self._sheets.get(id_)
        if there is not None and there.circuit_id != circuit.id:
            raise Cannot(("sheet", f"is one of {there.circuit.name}"))
        if there is None:
            there = self._sheets[id_] = Sheet(
                id=id_, known_as=known_as, circuit=circuit, begun_at=at, brought=self._file, by_name=self._marked(""),
            )  # fmt: skip
        return there

    def _point(self, circuit: Circuit, entry: dict[str, Any]) -> str | None:
        name = entry.get("point")
        if not name:
            return None
        found = [p for p in circuit.points.all() if p.name.casefold() == name.strip().casefold()]
        if len(found) != 1:
            raise Cannot(("point", f"there is no point called “{name}” on {circuit.name}"))
        return str(found[0].id)
