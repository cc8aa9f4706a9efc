"""The tests of a sheet as a tests file, out and in."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID, uuid5

from django.db import transaction
from django.utils import timezone

from base.clocks import still_to_come
from base.problems import Refused
from brought.services import file_for, keep
from crews.models import Crew
from crews.services import Author
from evenprobe.formats import dead_tests_file, parse
from evenprobe.signing import digest
from sheets.models import Sheet, SheetEntry
from sheets.records import SheetView
from sheets.services import content_of, sheet_of

_OF_THE_FILE = {"id", "at", "by"}


def tests_of(sheet: Sheet) -> dict[str, Any]:
    """Every test in force, each with when it was made and by whom."""
    view = SheetView(sheet)
    return {
        "format": "even-probe/tests",
        "version": 1,
        "practice": view.practice,
        "label": str(sheet),
        "tests": [
            {"id": str(e.id), **e.entry["test"], "at": e.at.isoformat(), "by": _by(e)} for e in view.of("tested")
        ],
    }


def _by(entry: SheetEntry) -> str:
    return entry.brought.unmarked(entry.by_name) if entry.brought else entry.by_name


def bring_in(crew: Crew, author: Author, sheet_id: UUID, data: Any) -> Sheet:
    """A tests file onto a sheet: each test on the line it is of, if there is one. Again, it changes nothing.

    Everything is checked before anything is written, and a file is nobody's being there: no proof is told of it.
    """
    sheet = sheet_of(crew, sheet_id)
    view = SheetView(sheet)
    file = parse(dead_tests_file(), data)
    if file.practice.id != view.practice:
        raise Refused(("practice", f"this sheet is {view.practice}; the file is {file.practice}"))
    rows, now = {}, timezone.now()
    brought = file_for(crew, author, file.label or str(sheet), "tests", digest(data))
    for index, test in enumerate(file.tests):
        if wrong := still_to_come(test.at, now):
            raise Refused((f"tests[{index}].at", wrong))
        content = test.model_dump(mode="json", by_alias=True, exclude_none=True, exclude=_OF_THE_FILE)
        entry = {"type": "tested", "line": _line(view, content), "test": content}
        try:
            kept = content_of(view, entry, None)
        except Refused as error:
            path = f"tests[{index}]"
            raise Refused(*((f"{path}.{key}", text) for key, text in error.problems), status=error.status) from None
        id_, about = _own_id(sheet, test.id), {"brought": brought, "by_name": brought.marked(test.by or "")}
        rows[id_] = SheetEntry(id=id_, sheet=sheet, entry=kept, at=test.at or now, **about)
    with transaction.atomic():
        keep(brought)
        there = set(SheetEntry.objects.filter(id__in=rows).values_list("id", flat=True))
        SheetEntry.objects.bulk_create([row for id_, row in rows.items() if id_ not in there])
    return sheet_of(crew, sheet_id)


def _line(view: SheetView, test: dict[str, Any]) -> str | None:
    """The line of the sheet that a test is of, by its kind and its ends."""

    def ends(entry: Mapping[str, Any]) -> set[Any]:
        return {entry.get("from"), entry.get("to")}

    found = (line.id for line in view.lines if line.kind == test["kind"] and ends(line.preset) == ends(test))
    return next(found, None)


def _own_id(sheet: Sheet, written: str) -> UUID:
    """The entry a file's id means: this sheet's own of that id, or one derived from it."""
    try:
        meant = UUID(written)
    except ValueError:
        return uuid5(sheet.id, written)
    return meant if SheetEntry.objects.filter(id=meant, sheet=sheet).exists() else uuid5(sheet.id, written)
