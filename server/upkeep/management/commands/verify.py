"""Restore a backup to a scratch place and hold it against what was written down when it was made."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from upkeep.backups import Backup, BackupProblem, backups_in, verify


class Command(BaseCommand):
    help = "Check a backup, or the latest of a folder: hash, integrity, rows of every table, chains of sign-offs."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("where", type=Path, help="a backup's .sqlite3, or the folder")

    def handle(self, *_args: Any, where: Path, **_options: Any) -> None:
        backup = chosen(where)
        try:
            told = verify(backup)
        except BackupProblem as problem:
            raise CommandError(str(problem)) from None
        chains = len(told["chains"])
        self.stdout.write(f"{backup.database} is as it was made {told['made_at']}, chains of sign-offs: {chains}")


def chosen(where: Path) -> Backup:
    """The one that is named, or the latest of a folder. Raises CommandError where there is none."""
    if not where.is_dir():
        return Backup(where)
    there = backups_in(where)
    if not there:
        raise CommandError(f"there is no backup in {where}")
    return there[0]
