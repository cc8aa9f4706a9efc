"""Which column of somebody's spreadsheet is which of a table: as it is proposed, for a person to confirm."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from evenprobe.formats.tables.cells import factor_between, unit_in
from evenprobe.formats.tables.columns import Column, Table

_WITH_UNIT = re.compile(r"(?P<name>.*?)\s*[\[(](?P<unit>[^\])]*)[\])]\s*")


@dataclass(frozen=True)
class Matched:
    """`column`: of the table, by its header. `unit`: what the file's header says, where it is another."""

    column: str
    unit: str = ""


def proposed(table: Table, header: Sequence[str]) -> dict[str, Matched]:
    """By the file's own headers; a column of the table once.

    Parameters
    ----------
    table
        Into which the rows are to go.
    header : sequence of str
        The file's.

    Returns
    -------
    dict
        Without those nothing is like.

    Examples
    --------
    >>> from evenprobe.formats.tables.readings import READINGS
    >>> found = proposed(READINGS, ["Outlet", "Volts (mV)", "Weather"])
    >>> {name: (one.column, one.unit) for name, one in found.items()}
    {'Outlet': ('point', ''), 'Volts (mV)': ('value [V]', 'mV')}
    """
    exact = {name: Matched(name) for name in header if name in table.by_header and not table.by_header[name].derived}
    found, taken = dict(exact), {one.column for one in exact.values()}
    for name in header:
        if name in found or name in table.by_header:
            continue
        near = _like(table, name, taken)
        if near is not None:
            found[name] = near
            taken.add(near.column)
    return found


def _like(table: Table, name: str, taken: set[str]) -> Matched | None:
    split = _WITH_UNIT.fullmatch(name)
    word, unit = (split["name"], unit_in(split["unit"])) if split else (name, None)
    for column in table.columns:
        if column.derived or column.header in taken or _plain(word) not in _words_of(column):
            continue
        if unit is None or unit == column.unit:
            return Matched(column.header)
        if column.unit and factor_between(unit, column.unit) is not None:
            return Matched(column.header, unit)
    return None


def _words_of(column: Column) -> set[str]:
    return {_plain(word) for word in (column.name, *column.also)}


def _plain(word: str) -> str:
    return re.sub(r"[^a-z0-9]+", " ", word.casefold()).strip()


def unmatched(table: Table, matched: Mapping[str, Matched]) -> list[str]:
    """Columns that every row needs and nothing of the file is for."""
    there = {one.column for one in matched.values()}
    return [column.header for column in table.columns if column.needed and column.header not in there]
