"""What the routes of files take and give."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import ConfigDict

from base.problems import Problem
from evenprobe.entries.documented import Among
from evenprobe.formats.tables import TABLES

FateWord = Literal["new", "here", "differs", "twice", "cannot"]
TableWord = Annotated[str, Among(tuple(TABLES))]


class BroughtOut(Schema):
    """A file that was brought in. `strange`: testers of it that nobody has said are the crew's."""

    id: UUID
    name: str
    what: str
    sha256: str
    at: datetime
    by: str
    strange: int


class CountOut(Schema):
    """Of one table of a record file: how many rows there are of each fate."""

    table: str
    title: str
    new: int
    here: int
    differs: int


class DifferingOut(Schema):
    """A row that is here with other content, which stays."""

    title: str
    name: str
    keys: list[str]


class RecordLookedAt(Schema):
    """What would come of a record file. `differing`: the first of those that differ."""

    sha256: str
    of: str
    counts: list[CountOut]
    differing: list[DifferingOut]


class MatchedIO(Schema):
    """`column`: of the table, by its header. `unit`: of the file's column, where it is another."""

    column: str
    unit: str = ""


class RunOut(Schema):
    """Rows one after the other with the same fate, by the lines they begin on."""

    fate: FateWord
    first: int
    last: int
    rows: int


class SaidOut(Schema):
    """What is to be said of some rows. `path`: of a problem the column of the table. `lines`: the first of them."""

    fate: FateWord
    problems: list[Problem]
    lines: list[int]
    rows: int


class RowsLookedAt(Schema):
    """What would come of every row. `missing`: columns every row needs that nothing is for; there are no rows then.

    `can`: columns of the table that can be brought in. `first`: how the first rows are read, by `shown`. `said`: what
    is to be said, once for all rows it is the same of.
    """

    sha256: str
    header: list[str]
    columns: dict[str, MatchedIO]
    fixed: dict[str, str]
    decimal: str
    zone: str
    remembered: bool
    missing: list[str]
    can: list[str]
    counts: dict[str, int]
    runs: list[RunOut]
    said: list[SaidOut]
    shown: list[str]
    first: list[list[str]]


class HowIn(Schema):
    """How a file of rows is to be read; None: as it was before, or as it is proposed."""

    model_config = ConfigDict(extra="forbid")

    columns: dict[str, MatchedIO] | None = None
    fixed: dict[str, str] | None = None
    decimal: str | None = None
    zone: str = ""
    site: UUID | None = None
