"""What would come of a file, as it is shown before anything is written."""

from collections import Counter
from collections.abc import Iterator, Sequence
from typing import Any

from base.problems import Problem
from evenprobe.formats.tables import Table
from exchange.record.looking import Looked
from exchange.record.tables import TABLES
from exchange.rows.bringing import LookedAt
from exchange.rows.fates import RowFate, runs_of
from exchange.shapes import (
    CountOut,
    DifferingOut,
    MatchedIO,
    RecordLookedAt,
    RowsLookedAt,
    RunOut,
    SaidOut,
)

_MOST_DIFFERING = 100
_MOST_SAID = 200
_LINES_NAMED = 12
_MOST_RUNS = 2000
_FIRST = 5


def record_looked_at(looked: Looked) -> RecordLookedAt:
    """How many rows of each table are new, here, or here otherwise."""
    counts = []
    for table in TABLES:
        fates = Counter(looked.fates[table.name])
        if fates:
            counts.append(
                CountOut(
                    table=table.name, title=table.title, new=fates["new"], here=fates["here"], differs=fates["differs"]
                )
            )
    differing = [one for _, one in zip(range(_MOST_DIFFERING), _differing(looked), strict=False)]
    return RecordLookedAt(sha256=looked.file.sha256, of=_of(looked), counts=counts, differing=differing)


def _of(looked: Looked) -> str:
    if looked.file.of.what == "crew":
        return "a whole crew"
    return next((row["name"] for row in looked.file.rows["sites"]), "a site")


def _differing(looked: Looked) -> Iterator[DifferingOut]:
    for table in TABLES:
        for row, fate in looked.of(table):
            if fate == "differs":
                yield DifferingOut(title=table.title, name=_name(row), keys=looked.differ[table.name, row["id"]])


def _name(row: dict[str, Any]) -> str:
    entry = row.get("entry") or {}
    label = entry.get("label") if isinstance(entry, dict) else None
    return str(row.get("name") or label or row.get("at") or row.get("taken_at") or row["id"])


def rows_looked_at(table: Table, looked: LookedAt) -> RowsLookedAt:
    """How the file is read, and what would come of every row."""
    settled = looked.settled
    used = {one.column for one in settled.columns.values()} | settled.fixed.keys()
    shown = [column for column in table.columns if column.header in used]
    read = [row for row in looked.rows if row.entry][:_FIRST]
    return RowsLookedAt(
        sha256=looked.sha256,
        header=list(looked.sheet.header),
        columns={name: MatchedIO(column=one.column, unit=one.unit) for name, one in settled.columns.items()},
        fixed=dict(settled.fixed),
        decimal=settled.decimal,
        zone=settled.zone,
        remembered=settled.remembered,
        missing=list(looked.missing),
        can=[column.header for column in table.columns if not column.derived],
        counts=dict(Counter(row.fate for row in looked.rows)),
        runs=[RunOut(**vars(run)) for run, _ in zip(runs_of(looked.rows), range(_MOST_RUNS), strict=False)],
        said=_said(looked.rows),
        shown=[column.header for column in shown],
        first=[[_text(column.written(row.entry)) for column in shown] for row in read],
    )


def _said(rows: Sequence[RowFate]) -> list[SaidOut]:
    """The same is said once, with the first cell that it is so of."""
    alike: dict[tuple[object, ...], list[RowFate]] = {}
    for row in rows:
        if row.problems:
            alike.setdefault((row.fate, row.problems), []).append(row)
    return [
        SaidOut(
            fate=some[0].fate,
            problems=[Problem(path=path, text=_with_cell(some[0], path, text)) for path, text in some[0].problems],
            lines=[row.line for row in some[:_LINES_NAMED]],
            rows=len(some),
        )
        for some in list(alike.values())[:_MOST_SAID]
    ]


def _with_cell(row: RowFate, path: str, text: str) -> str:
    return f"{row.cells[path]} {text}" if path in row.cells else text


def _text(cell: Any) -> str:
    return "" if cell is None else str(cell)
