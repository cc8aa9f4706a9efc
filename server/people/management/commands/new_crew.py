"""Make a crew, and a link by which its first keeper comes in."""

from datetime import timedelta
from typing import Any
from uuid import uuid4

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction
from django.utils import timezone

from crews.models import Crew, Role
from people.links import GOOD_FOR, key_of
from people.models import OneTimeLink

_HOURS = int(GOOD_FOR / timedelta(hours=1))


class Command(BaseCommand):
    help = "Make a crew, and a link by which its first keeper comes in; everybody else is asked in by a keeper."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("crew", help="what the crew is called")
        parser.add_argument("keeper", help="the keeper's name, as it is to stand on the record")
        parser.add_argument("--at", default="", help="the server's address, as https://probe.example.org")

    @transaction.atomic
    def handle(self, *_args: Any, crew: str, keeper: str, at: str, **_options: Any) -> None:
        name, keeper = crew.strip()[:120], " ".join(keeper.split())[:120]
        if not name or not keeper:
            raise CommandError("both the crew and its keeper need a name")
        if Crew.objects.filter(name=name).exists():
            raise CommandError(f"there is a crew called {name} already; a keeper of it asks others in, under People")
        now = timezone.now()
        link = OneTimeLink.objects.create(
            id=uuid4(), crew=Crew.objects.create(name=name), name=keeper, role=Role.KEEPER,
            made_at=now, made_by_name="whoever runs the server", ends_at=now + GOOD_FOR,
        )  # fmt: skip
        self.stdout.write(f"{name} is made. {keeper} comes in, once and within {_HOURS} hours, by")
        self.stdout.write(f"  {at.rstrip('/')}/join#{key_of(link)}")
