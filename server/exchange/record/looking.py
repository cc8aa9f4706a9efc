"""A record file held against the record: what is wrong with it, what would come of every row. Writes nothing."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from django.db import models

from crews.models import Crew
from evenprobe.entries import FormatError, parse, parse_json
from evenprobe.formats.record import RecordFile
from evenprobe.signing import broken_links, digest
from exchange.ids import own_id
from exchange.record.contents import Contents
from exchange.record.leaving import names_in_files
from exchange.record.rows import Ids, problems_of, written
from exchange.record.tables import BY_NAME, TABLES, Table

_AT_A_TIME = 250
_MOST_NAMED = 50
Fate = Literal["new", "here", "differs"]
"""`differs`: it is here with other content, which stays."""


@dataclass
class Looked:
    """`own`: by the file's id what a row has here, where that is another. `fates`: of every row, by table.

    `differ`: which keys of a row differ, by its table and id.
    """

    file: RecordFile
    own: dict[str, str] = field(default_factory=dict)
    fates: dict[str, list[Fate]] = field(default_factory=dict)
    differ: dict[tuple[str, str], list[str]] = field(default_factory=dict)

    def of(self, table: Table) -> Iterator[tuple[dict[str, Any], Fate]]:
        return zip(self.file.rows[table.name], self.fates[table.name], strict=True)


def read_file(content: bytes) -> RecordFile:
    """The file, right in itself. Raises FormatError with its paths."""
    try:
        data = parse_json(content.decode("utf-8-sig"))
    except UnicodeDecodeError as error:
        raise FormatError([("", f"not UTF-8 text: byte {error.start + 1} is none")]) from None
    file = parse(RecordFile, data)
    whole = digest({key: value for key, value in data.items() if key != "sha256"})
    if whole != file.sha256:
        raise FormatError([("sha256", f"the file was changed after it was saved: its SHA-256 is {whole}")])
    problems = [*_of_tables(file), *_of_chains(file)] or [*_of_rows(file)] or [*_of_ids(file)] or [*_contents(file)]
    if problems:
        raise FormatError(problems[:_MOST_NAMED])
    return file


def look(crew: Crew, file: RecordFile) -> Looked:
    """What would come of every row of a file that is right."""
    found = Looked(file)
    there = {table.name: _there(crew, table, file.rows[table.name], found.own) for table in TABLES}
    back = names_in_files(crew) | {own: name for name, own in found.own.items()}
    for table in TABLES:
        found.fates[table.name] = [
            _fate(found, table, row, there[table.name].get(found.own.get(row["id"], row["id"])), back)
            for row in file.rows[table.name]
        ]
    return found


def _fate(looked: Looked, table: Table, row: Mapping[str, Any], there: Any, back: Ids) -> Fate:
    if there is None:
        return "new"
    here = written(table, there, back)
    differ = [key for key, value in row.items() if here[key] != value]
    if differ:
        looked.differ[table.name, row["id"]] = differ
    return "differs" if differ else "here"


def _there(crew: Crew, table: Table, rows: list[dict[str, Any]], own: dict[str, str]) -> dict[str, Any]:
    """Rows of the crew that the file's are, by their own ids; `own` learns of ids that are another crew's."""
    found: dict[str, Any] = {}
    manager = table.model._default_manager
    for start in range(0, len(rows), _AT_A_TIME):
        ids = [row["id"] for row in rows[start : start + _AT_A_TIME]]
        taken = manager.filter(id__in=ids).exclude(**{table.crew: crew}).values_list("id", flat=True)
        own |= {str(id_): str(own_id(crew, str(id_))) for id_ in taken}
        wanted = [own.get(id_, id_) for id_ in ids]
        beside = ["brought", *(["supersedes"] if _follows(table) else [])]
        mine = manager.filter(id__in=wanted, **{table.crew: crew}).select_related(*beside)
        found |= {str(row.id): row for row in mine}  # type: ignore[attr-defined]
    return found


def _follows(table: Table) -> bool:
    return any(one.name == "supersedes" for one in table.fields)


def _of_tables(file: RecordFile) -> Iterator[tuple[str, str]]:
    for name in file.rows.keys() - BY_NAME.keys():
        yield f"rows.{name}", "unknown key"
    for name in BY_NAME.keys() - file.rows.keys():
        yield f"rows.{name}", "is missing"


def _of_chains(file: RecordFile) -> Iterator[tuple[str, str]]:
    for number, chain in enumerate(file.chains):
        for broken in broken_links([link.link() for link in chain]):
            yield f"chains[{number}][{broken.at}]", f"link {broken.number} does not follow the one before it"


def _of_rows(file: RecordFile) -> Iterator[tuple[str, str]]:
    for table in TABLES:
        for number, row in enumerate(file.rows[table.name]):
            for key, text in problems_of(table, row):
                yield f"rows.{table.name}[{number}].{key}".rstrip("."), text


def _of_ids(file: RecordFile) -> Iterator[tuple[str, str]]:
    """Each id once, and nothing referred to that is not in the file."""
    ids: dict[type[models.Model], set[str]] = {}
    for table in TABLES:
        known = ids.setdefault(table.model, set())
        for number, row in enumerate(file.rows[table.name]):
            path = f"rows.{table.name}[{number}]"
            if row["id"] in known:
                yield f"{path}.id", f"{row['id']} stands twice"
            known.add(row["id"])
            for one in table.fields:
                given = row[one.name]
                refers = isinstance(one, models.ForeignKey) and given is not None
                if refers and given not in ids.get(one.related_model, ()):  # type: ignore[arg-type]
                    yield f"{path}.{one.name}", f"{given} is not in the file before it"


def _contents(file: RecordFile) -> Iterator[tuple[str, str]]:
    links = {(link.number, link.content_sha256, link.link_sha256) for chain in file.chains for link in chain}
    return Contents(file.rows, links).problems()
