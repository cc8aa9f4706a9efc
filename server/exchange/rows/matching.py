"""Which column of a file is which, and how it is written: as somebody says, as the crew said before, or as proposed."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from django.utils import timezone

from base.problems import Refused
from crews.models import Crew
from evenprobe.formats.tables import How, Matched, SheetOfRows, Table, proposed
from evenprobe.formats.tables.cells import UNITS
from evenprobe.signing import digest
from exchange.models import Matching

_WITH_COMMA = re.compile(r"-?\d+,\d+")
_WITH_POINT = re.compile(r"-?\d+\.\d+")
_LOOKED_AT = 500


@dataclass(frozen=True)
class Asked:
    """What somebody says of a file; None: as it was before, or as it is proposed."""

    columns: Mapping[str, Matched] | None = None
    fixed: Mapping[str, str] | None = None
    decimal: str | None = None
    zone: str = ""


@dataclass(frozen=True)
class Settled:
    """`columns`: by the file's headers. `fixed`: what is the same in every row, by the table's.

    `remembered`: as the crew said of such a file before.
    """

    columns: Mapping[str, Matched]
    fixed: Mapping[str, str]
    decimal: str
    zone: str
    remembered: bool

    @property
    def how(self) -> How:
        return How("," if self.decimal == "," else ".", ZoneInfo(self.zone) if self.zone else None)


def settled(crew: Crew, table: Table, sheet: SheetOfRows, asked: Asked) -> Settled:
    """Raises Refused for columns, units or a zone there are not."""
    before = None
    if asked.columns is None:
        before = Matching.objects.filter(crew=crew, table=table.name, header_sha256=_known(sheet)).first()
    zone = asked.zone or (before.zone if before else "")
    if before is not None:
        columns = {name: Matched(*said) for name, said in before.columns.items()}
        return Settled(columns, before.fixed, asked.decimal or before.decimal, _zone(zone), remembered=True)
    columns = dict(asked.columns) if asked.columns is not None else proposed(table, sheet.header)
    fixed = {name: said.strip() for name, said in (asked.fixed or {}).items() if said.strip()}
    _check(table, sheet, columns, fixed)
    decimal = _decimal(asked.decimal or _decimal_of(table, sheet, columns))
    return Settled(columns, fixed, decimal, _zone(zone), remembered=False)


def remember(crew: Crew, table: Table, sheet: SheetOfRows, settled_as: Settled) -> None:
    """For the next file with such a header."""
    Matching.objects.update_or_create(
        crew=crew,
        table=table.name,
        header_sha256=_known(sheet),
        defaults={
            "columns": {name: [one.column, one.unit] for name, one in settled_as.columns.items()},
            "fixed": dict(settled_as.fixed),
            "decimal": settled_as.decimal,
            "zone": settled_as.zone,
            "used_at": timezone.now(),
        },
    )


def _known(sheet: SheetOfRows) -> str:
    return digest(list(sheet.header))


def _check(table: Table, sheet: SheetOfRows, columns: Mapping[str, Matched], fixed: Mapping[str, str]) -> None:
    seen: set[str] = set()
    for name, one in columns.items():
        if name not in sheet.header:
            raise Refused((f"columns.{name}", "the file has no such column"))
        column = table.by_header.get(one.column)
        if column is None or column.derived:
            raise Refused((f"columns.{name}", f"{one.column!r} is no column that can be brought in"))
        if one.column in seen:
            raise Refused((f"columns.{name}", f"another column is {one.column!r} already"))
        if one.unit and one.unit not in UNITS:
            raise Refused((f"columns.{name}", f"{one.unit!r} is no unit"))
        seen.add(one.column)
    for name in fixed:
        if name not in table.by_header or table.by_header[name].derived or name in seen:
            raise Refused((f"fixed.{name}", "is no column that can be the same in every row here"))


def _decimal(mark: str) -> str:
    if mark not in (".", ","):
        raise Refused(("decimal", "must be a point or a comma"))
    return mark


def _decimal_of(table: Table, sheet: SheetOfRows, columns: Mapping[str, Matched]) -> str:
    """A comma where numbers have commas and none has a point."""
    places = [sheet.header.index(name) for name, one in columns.items() if table.by_header[one.column].sort == "number"]
    cells = [row[at].strip() for row in sheet.rows[:_LOOKED_AT] for at in places if at < len(row)]
    commas = any(_WITH_COMMA.fullmatch(cell) for cell in cells)
    return "," if commas and not any(_WITH_POINT.fullmatch(cell) for cell in cells) else "."


def _zone(name: str) -> str:
    try:
        if name:
            ZoneInfo(name)
    except (ZoneInfoNotFoundError, ValueError, OSError):
        raise Refused(("zone", f"{name!r} is no time zone")) from None
    return name
