"""Hunts: what happened, along which run, and what was seen, append-only. Where the fault can still be is derived."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from base.append_only import Told
from sites.models import Circuit, Site


class Hunt(models.Model):
    """Along a circuit's run as it was when the hunt began.

    `kind`: what is hunted, as a circuit file says it. `told`: the intake. `run`: points, conductor and between, as a
    circuit file has them; `names`: of those points then, by id.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="hunts")
    circuit = models.ForeignKey(Circuit, on_delete=models.PROTECT, related_name="hunts")
    kind = models.CharField(max_length=20)
    happened = models.CharField(max_length=40)
    told: Any = models.JSONField(default=dict)
    run: Any = models.JSONField()
    names: Any = models.JSONField(default=dict)
    begun_at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=160, blank=True)

    class Meta:
        ordering = ["-begun_at"]

    def __str__(self) -> str:
        return self.circuit.name


class HuntEvent(Told):
    """`entry`: what was seen, as a circuit file has it; the mark of a box; the event that is taken back; a note."""

    called = "an event of a hunt"
    instead = "take it back, which is an event too"

    class Kind(models.TextChoices):
        SEEN = "seen"
        TAKEN_BACK = "taken-back"
        MARKED = "marked"
        MENDED = "mended"
        CLOSED = "closed"

    hunt = models.ForeignKey(Hunt, on_delete=models.PROTECT, related_name="events")
    kind = models.CharField(max_length=12, choices=Kind.choices)
    entry: Any = models.JSONField(default=dict)

    def __str__(self) -> str:
        return f"{self.hunt}: {self.kind}"
