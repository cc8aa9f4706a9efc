"""A record file that was looked at, written down: in short steps, so that nobody who writes waits long.

Cut off half-way, the same file brought in again goes on where it was; what is there is never changed.
"""

from dataclasses import dataclass
from datetime import datetime
from functools import partial
from typing import Any

from django.db import models
from django.utils import timezone

from base.append_only import Told
from brought.models import BroughtFile
from brought.services import file_for, keep
from crews.models import Crew
from crews.services import Author
from evenprobe.formats.record import RecordFile
from exchange.record.looking import Looked, look
from exchange.record.rows import renamed_in, value_of
from exchange.record.tables import BY_NAME, TABLES, Table
from exchange.short_writes import write
from kit.hands import Hands
from kit.models import Tester
from kit.strangers import unlisted
from photos.quota import refuse_beyond_quota
from proofs.models import Proof
from readings.models import Reading


def bring_in(crew: Crew, author: Author, name: str, file: RecordFile) -> BroughtFile:
    """Every new row of a file from `read_file`, marked with where it came from."""
    looked = look(crew, file)
    pictures = (len(row["image"]) * 3 // 4 for row, fate in looked.of(BY_NAME["photos"]) if fate == "new")
    refuse_beyond_quota(crew, sum(pictures))
    chains = [[link.link() for link in chain] for chain in file.chains]
    brought = keep(file_for(crew, author, name, "record", file.sha256, chains))
    rows = _Rows(crew, brought, looked)
    for table in TABLES:
        new = (row for row, fate in looked.of(table) if fate == "new")
        if _counted(table):
            for row in new:
                write([rows.made(table, row)])
        else:
            write(map(partial(rows.made, table), new))
    _take_rules(crew, file)
    return brought


def _counted(table: Table) -> bool:
    """Whether a row can refer to another by what the table counts by, which is known when that one is written."""
    return any(field.name == "supersedes" for field in table.fields) and issubclass(table.model, Told)


def _take_rules(crew: Crew, file: RecordFile) -> None:
    """The crew's rules of a proof, where nobody has set any here."""
    if file.rules and not crew.rules:
        crew.rules = file.rules
        crew.save()


@dataclass
class _Rows:
    """Rows made of those of a file, for a crew."""

    crew: Crew
    brought: BroughtFile
    looked: Looked

    def __post_init__(self) -> None:
        own = Tester.objects.filter(crew=self.crew)
        self._own = {str(tester.id): tester for tester in own if not tester.is_strange}
        self._hands = Hands(self.crew, timezone.now())

    def made(self, table: Table, row: dict[str, Any]) -> models.Model:
        here = renamed_in(table, row, self.looked.own)
        values: dict[str, Any] = {"brought": self.brought, **({"crew": self.crew} if table.crew == "crew" else {})}
        for field in table.fields:
            value = value_of(field, here[field.name])
            if isinstance(field, models.ForeignKey) and field.target_field.name != "id" and value is not None:
                value = field.related_model._default_manager.get(id=value).pk
            values[field.attname] = value
        if here["id"] != row["id"]:
            values["known_as"] = row["id"]
        if "by_name" in here:
            values["by_name"] = self.brought.marked(here["by_name"])
        if table.model is Proof and values["brought_at"] is None:
            values["brought_at"] = self.brought.at
        if "held" in here:
            values["held"] = self._held(table, here)
        return table.model(**values)

    def _held(self, table: Table, row: dict[str, Any]) -> dict[str, Any] | None:
        """A tester of the crew's own is what this record knows of it, whatever a file says."""
        held: dict[str, Any] | None = row["held"]
        own = self._own.get(row["tester"] or "")
        if own is not None:
            at = datetime.fromisoformat(row["taken_at" if table.model is Reading else "at"])
            return self._hands.kept(own, at)
        if table.model is Reading and row["tester"] is None and row["entry"] is not None:
            return unlisted(row["entry"]["quantity"], held)
        return held
