"""What would come of every row of a file, and what it would be."""

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field
from itertools import groupby
from typing import Any, Literal

from base.problems import Refused
from evenprobe.entries import FormatError
from evenprobe.formats.tables import Column, How, SheetOfRows, Table, Unreadable
from exchange.rows.matching import Settled

Fate = Literal["new", "here", "differs", "twice", "cannot"]
"""`differs`: it is here with other content, which stays. `twice`: the file has it before."""
Problem = tuple[str, str]


class Cannot(Exception):
    """Why a row cannot go in, by the headers of the table's columns."""

    def __init__(self, *problems: Problem) -> None:
        super().__init__("; ".join(text for _, text in problems))
        self.problems = problems


class Twice(Cannot):
    """The file has the row before."""


@dataclass(eq=False)
class RowFate:
    """`line`: of the file. `entry`: what was read. `cells`: those that could not be, by the table's columns.

    `made`: what is to be written, in order.
    """

    line: int
    fate: Fate = "new"
    entry: dict[str, Any] = field(default_factory=dict)
    problems: tuple[Problem, ...] = ()
    cells: dict[str, str] = field(default_factory=dict)
    made: list[Any] = field(default_factory=list)


def read(table: Table, sheet: SheetOfRows, settled_as: Settled) -> list[RowFate]:
    """The rows with what their cells say, those that cannot be read among them. What is fixed stands behind them."""
    width, fixed = len(sheet.header), settled_as.fixed
    places = [(sheet.header.index(name), one.column, one.unit) for name, one in settled_as.columns.items()]
    places += [(width + number, name, "") for number, name in enumerate(fixed)]
    order = {column.header: number for number, column in enumerate(table.columns)}
    wanted = sorted(
        ((at, table.by_header[name], unit) for at, name, unit in places), key=lambda one: order[one[1].header]
    )
    needed = [column for column in table.columns if column.needed]
    behind = list(fixed.values())
    reader = [(at, column, _Cells(column, settled_as.how, unit)) for at, column, unit in wanted]
    return [_row(line, row, behind, reader, needed, width) for line, row in zip(sheet.lines, sheet.rows, strict=True)]


class _Cells(dict[str, Any]):
    """What the cells of a column say, each text read once: most stand there many times."""

    def __init__(self, column: Column, how: How, unit: str) -> None:
        super().__init__()
        self._column, self._how, self._unit = column, how, unit

    def __missing__(self, cell: str) -> Any:
        self[cell] = found = self._column.read(cell, self._how, self._unit)
        return found


def _row(
    line: int,
    row: Sequence[str],
    behind: Sequence[str],
    wanted: Sequence[tuple[int, Column, _Cells]],
    needed: Sequence[Column],
    width: int,
) -> RowFate:
    found = RowFate(line)
    problems: list[Problem] = []
    if len(row) > width and any(cell.strip() for cell in row[width:]):
        problems.append(("", f"has {len(row)} cells under {width} headers: is a comma in a cell without quotes?"))
    cells = [*row[:width], *[""] * (width - len(row)), *behind]
    for at, column, said in wanted:
        cell = cells[at]
        if not cell or cell.isspace():
            continue
        try:
            column.put(found.entry, said[cell])
        except Unreadable as error:
            problems.append((column.header, str(error)))
            found.cells[column.header] = _short(cell)
    for column in needed:
        if not problems and not found.entry.get(column.key or column.name):
            problems.append((column.header, "is missing"))
    if problems:
        found.fate, found.problems = "cannot", tuple(problems)
    return found


@contextmanager
def fate_of(row: RowFate, table: Table) -> Iterator[None]:
    """What a row comes to where something is wrong with it, by the headers of the table's columns."""
    try:
        yield
    except Twice as error:
        row.fate, row.problems = "twice", error.problems
    except (Cannot, Refused, FormatError) as error:
        named = tuple((table.header_of(path), text) for path, text in error.problems)
        row.fate, row.problems, row.made = "cannot", named, []


def readable(rows: Sequence[RowFate]) -> list[RowFate]:
    return [row for row in rows if row.fate != "cannot"]


def made_by(rows: Sequence[RowFate]) -> list[Any]:
    """What the rows that go in make, in their order, each once."""
    return list({id(one): one for row in rows if row.fate == "new" for one in row.made}.values())


_LONGEST_SHOWN = 40


def _short(cell: str) -> str:
    text = cell.strip()
    return f"“{text if len(text) <= _LONGEST_SHOWN else f'{text[:_LONGEST_SHOWN]}…'}”"


@dataclass(frozen=True)
class Run:
    """Rows one after the other with the same fate."""

    fate: Fate
    first: int
    last: int
    rows: int


def runs_of(rows: Sequence[RowFate]) -> Iterator[Run]:
    """Every row's fate, said once for those that stand together."""
    for fate, some in groupby(rows, key=lambda row: row.fate):
        together = list(some)
        yield Run(fate, together[0].line, together[-1].line, len(together))
