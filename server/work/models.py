"""The record: readings, append-only. A correction supersedes, a withdrawal takes back, and all stay visible."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from kit.models import Tester
from sites.models import Point


class Reading(models.Model):
    """`entry`: a reading of the survey format without its id, tester, author, or time of taking.

    None for a withdrawal, which only takes back what it supersedes.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    point = models.ForeignKey(Point, on_delete=models.PROTECT, related_name="readings")
    entry: Any = models.JSONField(null=True)
    tester = models.ForeignKey(Tester, null=True, on_delete=models.PROTECT, related_name="readings")
    held: Any = models.JSONField(null=True)
    """The tester with its leads and that day's check, as the survey format has an instrument without its id."""
    supersedes = models.OneToOneField("self", null=True, on_delete=models.PROTECT, related_name="superseded_by")
    taken_at = models.DateTimeField()
    recorded_at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=160, blank=True)

    class Meta:
        ordering = ["taken_at", "recorded_at", "id"]

    def __str__(self) -> str:
        return f"{self.point}: {self.entry}"

    def save(self, *args: Any, **kwargs: Any) -> None:
        if not self._state.adding:
            raise RuntimeError("a reading is never edited; record one that supersedes it")
        super().save(*args, **kwargs)

    def delete(self, *_args: Any, **_kwargs: Any) -> tuple[int, dict[str, int]]:
        raise RuntimeError("a reading is never deleted; withdraw it")
