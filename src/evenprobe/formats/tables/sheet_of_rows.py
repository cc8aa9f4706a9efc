"""A file of rows read: its encoding, what stands between its cells, its header, and every row with its line."""

import csv
from collections.abc import Sequence
from dataclasses import dataclass

from evenprobe.entries import FormatError

_MARKS = ((b"\xff\xfe", "UTF-16"), (b"\xfe\xff", "UTF-16"), (b"PK\x03\x04", "a spreadsheet's own file"))
_BETWEEN = (",", ";", "\t")
_MOST_ROWS = 100_000
_LONGEST_CELL = 20_000


@dataclass(frozen=True)
class SheetOfRows:
    """`lines`: of each row the line of the file it begins on, from 1."""

    header: Sequence[str]
    rows: Sequence[Sequence[str]]
    lines: Sequence[int]


def read_rows(content: bytes) -> SheetOfRows:
    r"""The rows of a CSV file, empty ones left out.

    Parameters
    ----------
    content : bytes
        The whole file.

    Returns
    -------
    SheetOfRows
        Cells as they are written.

    Raises
    ------
    FormatError
        Where it is not UTF-8, has no header, a quote that is not closed, or more rows than are read at once; with the
        line.

    Examples
    --------
    >>> sheet = read_rows(b"point,value [V]\r\nOutlet 3,119.8\r\n")
    >>> sheet.header, sheet.rows, sheet.lines
    (['point', 'value [V]'], [['Outlet 3', '119.8']], [2])
    """
    text = _decoded(content)
    first = text.split("\n", 1)[0]
    between = max(_BETWEEN, key=first.count)
    csv.field_size_limit(_LONGEST_CELL)
    reader = csv.reader(text.splitlines(keepends=True), delimiter=between, strict=True)
    rows, lines, before = [], [], 0
    try:
        for row in reader:
            begins, before = before + 1, reader.line_num
            if any(cell.strip() for cell in row):
                rows.append(row)
                lines.append(begins)
            if len(rows) > _MOST_ROWS + 1:
                raise FormatError([("", f"has more than {_MOST_ROWS} rows: bring it in in parts")])
    except csv.Error as error:
        raise FormatError([(f"line {before + 1}", f"cannot be read as rows: {error}")]) from None
    if len(rows) < 2:
        raise FormatError([("", "holds no rows: one line of headers, then a line a row")])
    header = [cell.strip() for cell in rows[0]]
    _check_header(header)
    return SheetOfRows(header, rows[1:], lines[1:])


def _decoded(content: bytes) -> str:
    for mark, what in _MARKS:
        if content.startswith(mark):
            raise FormatError([("", f"is {what}: save it as CSV, UTF-8")])
    try:
        return content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = content.count(b"\n", 0, error.start) + 1
        text = f"is not UTF-8 (byte {content[error.start]:#04x}): save the file as CSV, UTF-8"
        raise FormatError([(f"line {line}", text)]) from None


def _check_header(header: Sequence[str]) -> None:
    named = [name for name in header if name]
    twice = next((name for name in named if named.count(name) > 1), None)
    if not named:
        raise FormatError([("line 1", "must name the columns")])
    if twice:
        raise FormatError([("line 1", f"two columns are called {twice!r}: call one otherwise")])
