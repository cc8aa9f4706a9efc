"""The record: readings, append-only. A correction supersedes, a withdrawal takes back, and all stay visible.

Beside each point stands what it came to, made again whenever something changes that it hangs on.
"""

import uuid
from typing import Any

from django.db import models

from base.append_only import Signed
from kit.models import Tester
from sites.models import Point


class Reading(Signed):
    """`entry`: a reading of the survey format without its id, tester, author, or time of taking.

    None for a withdrawal, which only takes back what it supersedes.
    """

    called = "a reading"
    instead = "record one that supersedes it"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    point = models.ForeignKey(Point, on_delete=models.PROTECT, related_name="readings")
    entry: Any = models.JSONField(null=True)
    tester = models.ForeignKey(Tester, null=True, on_delete=models.PROTECT, related_name="readings")
    held: Any = models.JSONField(null=True)
    """The tester with its leads and that day's check, as the survey format has an instrument without its id."""
    supersedes = models.OneToOneField("self", null=True, on_delete=models.PROTECT, related_name="superseded_by")
    taken_at = models.DateTimeField()

    class Meta:
        ordering = ["taken_at", "recorded_at", "id"]

    def __str__(self) -> str:
        return f"{self.point}: {self.entry}"


class PointStanding(models.Model):
    """How a point stands, as it was made of so many `changes` by a core; an old one where either is another by now.

    The database counts the changes (`changes`). `said`: as lists say it; `unshown`: why it cannot be, with a
    reference. `failed`: what of it did, by name. `last_tested`: by a reading that counts or a dead test; `last_read`:
    by a reading. `days`: on which anything was read, each with how often, and from when to when.
    """

    NEVER = -1

    point = models.OneToOneField(Point, primary_key=True, on_delete=models.CASCADE, related_name="standing")
    changes = models.BigIntegerField(db_default=0)
    made_of = models.BigIntegerField(db_default=NEVER)
    made_by = models.CharField(max_length=16, db_default="")
    verdict = models.CharField(max_length=20, db_default="")
    said: Any = models.JSONField(null=True)
    unshown = models.TextField(db_default="")
    failed: Any = models.JSONField(null=True)
    last_tested = models.DateTimeField(null=True)
    last_read = models.DateTimeField(null=True)
    days: Any = models.JSONField(null=True)

    def __str__(self) -> str:
        return f"{self.point_id}: {self.verdict or 'not made yet'}"
