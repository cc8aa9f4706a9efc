"""Triggers that count: what the database itself does after a row was written, whoever wrote it.

They are taken off before a migration, for SQLite changes no table that a trigger of another one names, and put again
after it.
"""

from collections.abc import Iterable
from typing import NamedTuple

from django.db import DEFAULT_DB_ALIAS, connections

_PUT = {
    "sqlite": ('CREATE TRIGGER "{name}" AFTER {way} ON "{table}" BEGIN {statement}; END',),
    "postgresql": (
        'CREATE OR REPLACE FUNCTION "{name}"() RETURNS trigger LANGUAGE plpgsql AS '
        "$$ BEGIN {statement}; RETURN NULL; END $$",
        'CREATE TRIGGER "{name}" AFTER {way} ON "{table}" FOR EACH ROW EXECUTE FUNCTION "{name}"()',
    ),
}
_TAKE_OFF = {
    "sqlite": 'DROP TRIGGER IF EXISTS "{name}"',
    "postgresql": 'DROP TRIGGER IF EXISTS "{name}" ON "{table}"',
}
_THERE = {
    "sqlite": "SELECT name FROM sqlite_master WHERE type = 'trigger'",
    "postgresql": "SELECT tgname FROM pg_trigger",
}
ALWAYS = ("INSERT", "UPDATE", "DELETE")


class Trigger(NamedTuple):
    """After a row of a table was written in a `way`, `statement` is done, to which it is `NEW` or `OLD`."""

    name: str
    table: str
    way: str
    statement: str


def take_off(triggers: Iterable[Trigger], using: str) -> None:
    _each(triggers, using, (_TAKE_OFF[connections[using].vendor],))


def put(triggers: Iterable[Trigger], using: str) -> None:
    """Anew, where they are there already."""
    vendor = connections[using].vendor
    _each(triggers, using, (_TAKE_OFF[vendor], *_PUT[vendor]))


def _each(triggers: Iterable[Trigger], using: str, statements: Iterable[str]) -> None:
    connection = connections[using]
    there = set(connection.introspection.table_names())
    with connection.cursor() as cursor:
        for trigger in triggers:
            for statement in statements if trigger.table in there else ():
                cursor.execute(statement.format(**trigger._asdict()))


def missing(triggers: Iterable[Trigger], using: str = DEFAULT_DB_ALIAS) -> list[str]:
    """Tables without theirs, as after a migration that was cut off; there should be none."""
    connection = connections[using]
    with connection.cursor() as cursor:
        cursor.execute(_THERE[connection.vendor])
        there = {name for (name,) in cursor.fetchall()}
    return [trigger.table for trigger in triggers if trigger.name not in there]
