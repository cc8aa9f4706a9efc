"""Equipment the crew plugs in: vans, stalls, machines, with what each needs of an outlet."""

import uuid
from typing import Any

from django.db import models
from django.utils import timezone

from base.from_a_file import FromAFile
from crews.models import Crew
from evenprobe.formats.needs import NeedsEntry


class Equipment(FromAFile):
    """`entry`: what it needs, as the format writes it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="equipment")
    entry: Any = models.JSONField()
    written_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["written_at"]

    def __str__(self) -> str:
        return str(self.entry["label"])

    def needs(self) -> NeedsEntry:
        return NeedsEntry.model_validate(self.entry)
