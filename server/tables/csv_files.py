"""CSV as anybody's spreadsheet opens it: UTF-8, one header with units, a decimal point, ISO times (RFC 4180).

A cell of text never leaves as a formula: where it begins like one, an apostrophe stands before it (OWASP, on CSV
injection).
"""

import csv
from collections.abc import Iterable, Iterator, Sequence
from datetime import date, datetime
from typing import Any

_LIKE_A_FORMULA = ("=", "+", "-", "@", "\t", "\r", "\n")
_EXACT = 2.0**53
"""Below it a whole number is written without a point and is still the same."""
_BYTE_ORDER_MARK = "\ufeff"
"""Without it one spreadsheet takes UTF-8 for something else."""


class _Line:
    """A file that gives back what is written to it."""

    def write(self, text: str) -> str:
        return text


def csv_lines(header: Sequence[str], rows: Iterable[Sequence[Any]]) -> Iterator[str]:
    """The file line by line, so that a long one never stands in memory.

    Parameters
    ----------
    header
        What each column is, with its unit.
    rows
        Text, numbers, times and what is not known (None).

    Yields
    ------
    str
        A line with its end.
    """
    write = csv.writer(_Line(), lineterminator="\r\n").writerow
    yield f"{_BYTE_ORDER_MARK}{write(header)}"
    for row in rows:
        yield write([_cell(value) for value in row])


def _cell(value: Any) -> Any:
    """Numbers and nothing are left to the writer, which writes them so that they are read again as they are."""
    if value is None:
        return value
    if isinstance(value, float):
        return int(value) if value.is_integer() and abs(value) < _EXACT else value
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, datetime | date):
        return value.isoformat()
    text = str(value)
    return f"'{text}" if text.startswith(_LIKE_A_FORMULA) else text
