"""Equipment the crew plugs in: vans, stalls, machines, with what each needs of an outlet."""

import uuid
from typing import Any

from django.db import models

from crews.models import Crew
from evenprobe.formats.needs import NeedsEntry


class Equipment(models.Model):
    """`entry`: what it needs, as the format writes it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="equipment")
    entry: Any = models.JSONField()
    written_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["written_at"]

    def __str__(self) -> str:
        return str(self.entry["label"])

    def needs(self) -> NeedsEntry:
        return NeedsEntry.model_validate(self.entry)
