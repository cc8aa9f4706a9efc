"""Copy the whole record, pictures in it, while the server runs."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.utils import timezone

from upkeep.backups import BackupProblem, make, verify
from upkeep.place import database_file

_KEPT = 14


class Command(BaseCommand):
    help = "Copy the whole record to a folder, better on another disk, and check the copy by restoring it."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("folder", type=Path)
        parser.add_argument("--keep", type=int, default=_KEPT, help=f"how many stay in all; {_KEPT} unless said")

    def handle(self, *_args: Any, folder: Path, keep: int, **_options: Any) -> None:
        try:
            backup = make(database_file(), folder, timezone.now(), keep)
            told = verify(backup)
        except BackupProblem as problem:
            raise CommandError(str(problem)) from None
        rows = sum(told["rows"].values())
        self.stdout.write(f"{backup.database}: {rows} rows, {told['bytes']} bytes, SHA-256 {told['sha256']}")
