"""The crew's testers, as the survey format knows them."""

import uuid
from typing import Any

from django.db import models

from crews.models import Crew
from evenprobe.formats import InstrumentEntry


class Tester(models.Model):
    """`entry` is an instrument of the survey format without its id, which is this record's."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="testers")
    entry: Any = models.JSONField()

    def __str__(self) -> str:
        return str(self.entry.get("label") or self.entry["kind"])

    def instrument(self) -> InstrumentEntry:
        return InstrumentEntry.model_validate({"id": str(self.id), **self.entry})
