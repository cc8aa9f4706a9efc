"""Hunts: what happened, along what, and what was seen, append-only. Where the fault can still be is derived."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from base.append_only import LONGEST_BY, Told
from base.from_a_file import FromAFile
from kit.models import Tester
from sites.models import Board, Circuit, Site


class Hunt(FromAFile):
    """Along a circuit, or over a board, as it was when the hunt began.

    `kind`: what is hunted, as a circuit file says it. `told`: the intake; `asked`: what else it was begun with.
    `layout`: what a circuit file has beside what was seen; `names`: of what is in it by id, then.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="hunts")
    circuit = models.ForeignKey(Circuit, null=True, on_delete=models.PROTECT, related_name="hunts")
    board = models.ForeignKey(Board, on_delete=models.PROTECT, related_name="hunts")
    kind = models.CharField(max_length=20)
    happened = models.CharField(max_length=40)
    told: Any = models.JSONField(default=dict)
    asked: Any = models.JSONField(default=dict)
    layout: Any = models.JSONField()
    names: Any = models.JSONField(default=dict)
    begun_at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=LONGEST_BY, blank=True)

    class Meta:
        ordering = ["-begun_at"]

    def __str__(self) -> str:
        return str(self.circuit or self.board)


class HuntEvent(Told):
    """`entry`: what was seen, as a circuit file has it; the mark of a box; the event that is taken back; a note."""

    called = "an event of a hunt"
    instead = "take it back, which is an event too"

    class Kind(models.TextChoices):
        SEEN = "seen"
        TAKEN_BACK = "taken-back"
        MARKED = "marked"
        MENDED = "mended"
        SCHEDULED = "scheduled"
        CLOSED = "closed"

    hunt = models.ForeignKey(Hunt, on_delete=models.PROTECT, related_name="events")
    kind = models.CharField(max_length=12, choices=Kind.choices)
    entry: Any = models.JSONField(default=dict)
    tester = models.ForeignKey(Tester, null=True, on_delete=models.PROTECT, related_name="hunt_events")

    def __str__(self) -> str:
        return f"{self.hunt}: {self.kind}"
