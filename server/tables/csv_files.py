"""CSV as anybody's spreadsheet opens it: UTF-8, one header, lines that end as it wants them (RFC 4180)."""

import csv
from collections.abc import Iterable, Iterator, Sequence
from typing import Any

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
        Cells, as a table of the core writes them.

    Yields
    ------
    str
        A line with its end.
    """
    write = csv.writer(_Line(), lineterminator="\r\n").writerow
    yield f"{_BYTE_ORDER_MARK}{write(header)}"
    for row in rows:
        yield write(row)
