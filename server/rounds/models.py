"""Rounds of outlets: what is gone round, and what happened beside the readings, append-only. The rest is derived."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from base.append_only import LONGEST_BY, Told
from base.from_a_file import FromAFile
from kit.models import Tester
from sites.models import Circuit, Point, Site


class Round(FromAFile):
    """Through all outlets of a circuit, or of a room where no circuit is named. Readings since it began are its own."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="rounds")
    circuit = models.ForeignKey(Circuit, null=True, on_delete=models.PROTECT, related_name="rounds")
    room = models.CharField(max_length=120, blank=True)
    tester = models.ForeignKey(Tester, null=True, on_delete=models.PROTECT, related_name="rounds")
    begun_at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=LONGEST_BY, blank=True)

    class Meta:
        ordering = ["-begun_at"]

    def __str__(self) -> str:
        return self.circuit.name if self.circuit else self.room


class RoundEvent(Told):
    """`entry`: why a stop was skipped, or whether the device tripped, and anything to say of it."""

    called = "an event of a round"
    instead = "record what happened next"

    class Kind(models.TextChoices):
        SKIPPED = "skipped"
        PRESSED = "pressed"
        WATCHED = "watched"
        RESET = "reset"

    round = models.ForeignKey(Round, on_delete=models.PROTECT, related_name="events")
    point = models.ForeignKey(Point, on_delete=models.PROTECT, related_name="round_events")
    kind = models.CharField(max_length=10, choices=Kind.choices)
    entry: Any = models.JSONField(default=dict)

    def __str__(self) -> str:
        return f"{self.round}: {self.kind} at {self.point}"
