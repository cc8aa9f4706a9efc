"""Visits: what was planned at a site, and what was said of it since, append-only. What is done is derived."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from base.append_only import LONGEST_BY, Told
from base.from_a_file import FromAFile
from sites.models import Site


class Visit(FromAFile):
    """`why`: the intake's words. `circuits`, `works`: what was planned at first; a later plan is an event."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="visits")
    why = models.CharField(max_length=400)
    planned_for = models.DateField()
    circuits: Any = models.JSONField()
    works: Any = models.JSONField()
    made_at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=LONGEST_BY, blank=True)

    class Meta:
        ordering = ["-planned_for", "-made_at"]

    def __str__(self) -> str:
        return f"{self.site}, {self.planned_for}"


class VisitEvent(Told):
    """`entry`: a new plan; what was left open; the event that is put right; a note."""

    called = "an event of a visit"
    instead = "record what happened next"

    class Kind(models.TextChoices):
        PLANNED = "planned"
        BEGUN = "begun"
        LEFT_OPEN = "left-open"
        PUT_RIGHT = "put-right"
        NOTED = "noted"
        CLOSED = "closed"

    visit = models.ForeignKey(Visit, on_delete=models.PROTECT, related_name="events")
    kind = models.CharField(max_length=12, choices=Kind.choices)
    entry: Any = models.JSONField(default=dict)

    def __str__(self) -> str:
        return f"{self.visit}: {self.kind}"
