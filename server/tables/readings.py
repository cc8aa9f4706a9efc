"""Every reading of a site or of the crew as a row: where, what, how, with what, by whom, and whether it stands."""

from collections.abc import Iterator
from typing import Any
from uuid import UUID

from django.db.models import QuerySet, TextField
from django.db.models.functions import Cast

from brought.models import BroughtFile
from evenprobe.formats.tables import READINGS
from kit.models import Tester
from readings.models import Reading
from sites.models import Point

_AT_A_TIME = 2000
_PLACE = {
    "site": "circuit__board__supply__site__name",
    "board": "circuit__board__name",
    "circuit": "circuit__name",
    "point": "name",
}
_COLUMNS = {
    "id": "id",
    "known_as": "known_as",
    "at": "taken_at",
    "place": "_point",
    "entry": "entry",
    "tester": "_tester",
    "by": "by_name",
    "corrects": "supersedes_id",
    "brought": "_brought",
}
"""What is asked of each row, by what it is called here; what many rows share is looked up once."""


def _as_text(key: str) -> Cast:
    """An id as the database has it: to look something up by, it need not be made one first."""
    return Cast(key, TextField())


def _by_text(rows: Any) -> Any:
    return rows.annotate(text=_as_text("id"))


def reading_rows(readings: QuerySet[Reading]) -> Iterator[list[Any]]:
    """What was withdrawn or corrected among them; the withdrawals themselves are no readings."""
    return (READINGS.row(entry) for _, entry in reading_entries(readings))


def reading_entries(readings: QuerySet[Reading]) -> Iterator[tuple[UUID, dict[str, Any]]]:
    """The same as the table has each, by its id here."""
    beside = _Beside(readings)
    shared = {f"_{key}": _as_text(f"{key}_id") for key in ("point", "tester", "brought")}
    rows = readings.annotate(**shared).exclude(entry=None).order_by("taken_at", "recorded_at", "id")
    for values in rows.values_list(*_COLUMNS.values()).iterator(chunk_size=_AT_A_TIME):
        row = dict(zip(_COLUMNS, values, strict=True))
        yield row["id"], beside.entry(row)


class _Beside:
    """What stands beside readings and is shared by many: places, testers, files; and what few have."""

    def __init__(self, readings: QuerySet[Reading]) -> None:
        plain = readings.order_by()
        points = _by_text(Point.objects.filter(id__in=plain.values("point_id"))).values_list("text", *_PLACE.values())
        self._places = {text: dict(zip(_PLACE, names, strict=True)) for text, *names in points}
        testers = _by_text(Tester.objects.filter(id__in=plain.values("tester_id")))
        self._testers = {tester.text: str(tester) for tester in testers}
        files = _by_text(BroughtFile.objects.filter(id__in=plain.values("brought_id")))
        self._files = {file.text: file for file in files}
        later = plain.filter(superseded_by__isnull=False).values_list("id", "superseded_by__entry")
        self._withdrawn = {own: entry is None for own, entry in later.iterator()}
        corrected = plain.filter(supersedes__known_as__isnull=False)
        self._known_as = dict(corrected.values_list("supersedes_id", "supersedes__known_as"))
        named = plain.filter(tester=None, held__label__isnull=False)
        self._labels = dict(named.values_list("id", "held__label").iterator())

    def entry(self, row: dict[str, Any]) -> dict[str, Any]:
        """The reading as the table has it: what was measured, with where, with what and by whom."""
        own, tester, corrects = row["id"], row["tester"], row["corrects"]
        file = self._files.get(row["brought"])
        withdrawn = self._withdrawn.get(own)
        return {
            "source": "typed",
            **row["entry"],
            **self._places[row["place"]],
            "id": row["known_as"] or own,
            "at": row["at"],
            "tester": self._labels.get(own) if tester is None else self._testers[tester],
            "by": row["by"] if file is None else file.unmarked(row["by"]),
            "status": "counts" if withdrawn is None else "withdrawn" if withdrawn else "corrected",
            "corrects": self._known_as.get(corrects, corrects),
            "from file": file.said if file else None,
        }
