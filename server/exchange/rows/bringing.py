"""Rows looked at, and brought in: checked whole without holding anybody up, then written in short steps.

A row that cannot go in holds up no other. Cut off half-way, the same file again goes on where it was.
"""

import hashlib
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Protocol

from base.problems import Refused
from brought.models import BroughtFile
from brought.services import file_for, keep
from crews.models import Crew
from crews.services import Author
from evenprobe.formats.tables import SheetOfRows, Table, read_rows
from evenprobe.formats.tables.matching import unmatched
from exchange.rows.circuits import Circuits
from exchange.rows.dead_tests import DeadTests
from exchange.rows.fates import RowFate, read
from exchange.rows.kit import Kit
from exchange.rows.matching import Asked, Settled, remember, settled
from exchange.rows.readings import Readings
from exchange.short_writes import write
from sites.models import Site


class _Bringer(Protocol):
    """Rows of one table against the record of a crew. Reads, and never writes."""

    def look(self) -> None: ...

    def in_order(self) -> Iterable[Any]: ...


_BRINGERS: Mapping[str, Callable[[Crew, Site | None, Sequence[RowFate], BroughtFile | None], _Bringer]] = {
    "readings": Readings,
    "circuits": Circuits,
    "dead-tests": DeadTests,
    "kit": Kit,
}


@dataclass(frozen=True)
class LookedAt:
    """`missing`: columns that every row needs and that nothing of the file is for; there are no rows then."""

    sha256: str
    sheet: SheetOfRows
    settled: Settled
    missing: Sequence[str]
    rows: Sequence[RowFate]


def look(crew: Crew, table: Table, content: bytes, site: Site | None, asked: Asked) -> LookedAt:
    """What would come of every row. Writes nothing. Raises FormatError for what is no table, Refused for the rest."""
    sheet, settled_as, missing = _matched(crew, table, content, asked)
    rows = [] if missing else read(table, sheet, settled_as)
    if rows:
        _BRINGERS[table.name](crew, site, rows, None).look()
    return LookedAt(hashlib.sha256(content).hexdigest(), sheet, settled_as, missing, rows)


def bring_in(
    crew: Crew, author: Author, table: Table, name: str, content: bytes, site: Site | None, asked: Asked
) -> LookedAt:
    """Those that can go in. Raises Refused where columns are missing, or nothing can."""
    sheet, settled_as, missing = _matched(crew, table, content, asked)
    if missing:
        raise Refused(*((f"columns.{one}", "every row needs it: say which column it is") for one in missing))
    sha256 = hashlib.sha256(content).hexdigest()
    file = file_for(crew, author, name, table.name, sha256)
    rows = read(table, sheet, settled_as)
    bringer = _BRINGERS[table.name](crew, site, rows, file)
    bringer.look()
    if any(row.fate == "new" for row in rows):
        keep(file)
        write(bringer.in_order())
    remember(crew, table, sheet, settled_as)
    return LookedAt(sha256, sheet, settled_as, [], rows)


def _matched(crew: Crew, table: Table, content: bytes, asked: Asked) -> tuple[SheetOfRows, Settled, list[str]]:
    sheet = read_rows(content)
    found = settled(crew, table, sheet, asked)
    return sheet, found, [one for one in unmatched(table, found.columns) if one not in found.fixed]
