"""Which file the record is in, for commands that copy it."""

from pathlib import Path

from django.core.management.base import CommandError
from django.db import connection


def database_file() -> Path:
    """Raises CommandError where the record is in no file of its own."""
    if connection.vendor != "sqlite":
        raise CommandError(
            "the record is in PostgreSQL: pg_dump copies it and pg_restore brings it back (docs/running.md)"
        )
    return Path(str(connection.settings_dict["NAME"]))
