"""Put a backup in the place of the record, and bring it up to this version."""

from pathlib import Path
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connections
from django.utils import timezone

from upkeep.backups import BackupProblem, restore
from upkeep.management.commands.verify import chosen
from upkeep.place import database_file


class Command(BaseCommand):
    help = "Put a backup in the place of the record, with the server stopped. What was there stays beside it."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("where", type=Path, help="a backup's .sqlite3, or the folder: its latest")

    def handle(self, *_args: Any, where: Path, **_options: Any) -> None:
        backup, target = chosen(where), database_file()
        connections.close_all()
        try:
            aside = restore(backup, target, timezone.now())
        except BackupProblem as problem:
            raise CommandError(str(problem)) from None
        call_command("migrate", verbosity=0)
        self.stdout.write(f"{backup.database} is in the place of {target}")
        if aside is not None:
            self.stdout.write(f"what was there is {aside}")
