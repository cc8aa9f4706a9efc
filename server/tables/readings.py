"""Every reading of a site or of the crew as a row: where, what, how, with what, by whom, and whether it stands."""

from collections.abc import Iterator
from typing import Any

from django.db.models import QuerySet

from brought.models import BroughtFile
from evenprobe.formats.tables import READINGS
from readings.models import Reading

_AT_A_TIME = 2000
_COLUMNS = {
    "id": "id",
    "known_as": "known_as",
    "at": "taken_at",
    "site": "point__circuit__board__supply__site__name",
    "board": "point__circuit__board__name",
    "circuit": "point__circuit__name",
    "point": "point__name",
    "entry": "entry",
    "tester": "tester__entry",
    "label": "held__label",
    "by": "by_name",
    "corrected_by": "superseded_by__id",
    "corrected_to": "superseded_by__entry",
    "corrects": "supersedes_id",
    "corrects_known_as": "supersedes__known_as",
    "brought": "brought_id",
}
"""What is asked of each row, by what it is called here."""


def reading_rows(readings: QuerySet[Reading]) -> Iterator[list[Any]]:
    """What was withdrawn or corrected among them; the withdrawals themselves are no readings."""
    files: dict[Any, BroughtFile] = {}
    rows = readings.exclude(entry=None).order_by("taken_at", "recorded_at", "id").values_list(*_COLUMNS.values())
    for values in rows.iterator(chunk_size=_AT_A_TIME):
        row = dict(zip(_COLUMNS, values, strict=True))
        brought = row["brought"]
        if brought is not None and brought not in files:
            files[brought] = BroughtFile.objects.get(id=brought)
        yield READINGS.row(_entry_of(row, files.get(brought)))


def _entry_of(row: dict[str, Any], file: BroughtFile | None) -> dict[str, Any]:
    """The reading as the table has it: what was measured, with where, with what and by whom."""
    tester = row["tester"]
    withdrawn = row["corrected_to"] is None
    return {
        **row["entry"],
        **row,
        "id": row["known_as"] or row["id"],
        "tester": row["label"] if tester is None else tester.get("label") or tester["kind"],
        "by": row["by"] if file is None else file.unmarked(row["by"]),
        "status": "counts" if row["corrected_by"] is None else "withdrawn" if withdrawn else "corrected",
        "corrects": row["corrects_known_as"] or row["corrects"],
        "from file": file.said if file else None,
    }
