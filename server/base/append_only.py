"""The record is append-only: what was written down is neither edited nor deleted, only followed by what corrects it.

The database itself refuses, by a trigger a table and way of changing it, whoever asks; `AppendOnly` refuses earlier and
with a traceback. The triggers are put again after every migration, for SQLite makes a changed table anew without them.
"""

import uuid
from collections.abc import Iterator
from typing import Any

from django.apps import AppConfig, apps
from django.conf import settings
from django.db import connections, models
from django.utils import timezone

from base.from_a_file import FromAFile

LONGEST_BY = 240
"""A name, and which file it came from."""
_NEVER = {"UPDATE": "edited", "DELETE": "deleted"}


class AppendOnly(models.Model):
    """`called` names it in the refusal; `instead` says what to do."""

    called = "a record"
    instead = "write down what corrects it"

    class Meta:
        abstract = True

    @classmethod
    def refusal(cls, never: str) -> str:
        return f"{cls.called} is never {never}; {cls.instead}"

    def save(self, *args: Any, **kwargs: Any) -> None:
        if not self._state.adding:
            raise RuntimeError(self.refusal(_NEVER["UPDATE"]))
        super().save(*args, **kwargs)

    def delete(self, *_args: Any, **_kwargs: Any) -> tuple[int, dict[str, int]]:
        raise RuntimeError(self.refusal(_NEVER["DELETE"]))


class Signed(AppendOnly, FromAFile):
    """What somebody wrote down: who, and when the server had it."""

    recorded_at = models.DateTimeField(default=timezone.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=LONGEST_BY, blank=True)

    class Meta:
        abstract = True


class Told(Signed):
    """What happened, in the order it did. The id is made by whoever tells it; `at` is by the server's clock."""

    number = models.BigAutoField(primary_key=True)
    id = models.UUIDField(unique=True, default=uuid.uuid4, editable=False)
    at = models.DateTimeField()

    class Meta:
        abstract = True
        ordering = ["at", "number"]


def append_only_models() -> Iterator[type[AppendOnly]]:
    """Every table of the record."""
    return (model for model in apps.get_models() if issubclass(model, AppendOnly))


def triggers_of(model: type[AppendOnly], vendor: str) -> dict[str, str]:
    """The statement that makes each of a table's triggers, by the trigger's name."""
    table, statement = model._meta.db_table, _STATEMENT[vendor]
    found = {}
    for way, never in _NEVER.items():
        name, said = f"{table}_no_{way.lower()}", model.refusal(never).replace("'", "''")
        found[name] = statement.format(name=name, way=way, table=table, said=said)
    return found


_STATEMENT = {
    "sqlite": (
        'CREATE TRIGGER IF NOT EXISTS "{name}" BEFORE {way} ON "{table}" BEGIN SELECT RAISE(ABORT, \'{said}\'); END'
    ),
    "postgresql": (
        'CREATE OR REPLACE TRIGGER "{name}" BEFORE {way} ON "{table}" '
        "FOR EACH ROW EXECUTE FUNCTION never_changed('{said}')"
    ),
}
_FIRST = {
    "postgresql": (
        "CREATE OR REPLACE FUNCTION never_changed() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
        "RAISE EXCEPTION '%', TG_ARGV[0] USING ERRCODE = 'integrity_constraint_violation'; END $$"
    )
}
"""What the triggers of a database call, and has to be there before them."""


def put_triggers(sender: AppConfig, using: str, **_about: Any) -> None:
    """After a migration of an app: its tables' triggers. Raises NotImplementedError for a database without them."""
    connection = connections[using]
    there = set(connection.introspection.table_names())
    wanted = [m for m in append_only_models() if m._meta.app_label == sender.label and m._meta.db_table in there]
    if wanted and connection.vendor not in _STATEMENT:
        raise NotImplementedError(f"no triggers that keep the record are written for {connection.vendor}")
    with connection.cursor() as cursor:
        if wanted and connection.vendor in _FIRST:
            cursor.execute(_FIRST[connection.vendor])
        for model in wanted:
            for statement in triggers_of(model, connection.vendor).values():
                cursor.execute(statement)
