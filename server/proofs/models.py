"""Proofs of isolation: what is to be dead, and the events, append-only. The state is derived, never stored."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from base.append_only import LONGEST_BY, AppendOnly, Told
from base.from_a_file import FromAFile
from kit.models import Tester
from sites.models import Circuit, Site


class Proof(AppendOnly, FromAFile):
    """What was set down at the start. `rules`: the crew's as they were then; `asked`: yes or no to each question.

    `brought_at`: of one that came from a file and is history, with who brought it in `by`, and the `file` whole.
    """

    called = "a proof of isolation"
    instead = "begin another"

    class What(models.TextChoices):
        CIRCUIT = "circuit"
        BOARD = "board"
        MACHINE = "machine"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="proofs")
    circuit = models.ForeignKey(Circuit, null=True, on_delete=models.PROTECT, related_name="proofs")
    name = models.CharField(max_length=120)
    what = models.CharField(max_length=10, choices=What.choices)
    system = models.CharField(max_length=20)
    earthing = models.CharField(max_length=8)
    terminals: Any = models.JSONField()
    place = models.CharField(max_length=20)
    wet = models.BooleanField(default=False)
    sources: Any = models.JSONField()
    asked: Any = models.JSONField()
    rules: Any = models.JSONField()
    begun_at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=LONGEST_BY, blank=True)
    brought_at = models.DateTimeField(null=True)
    file: Any = models.JSONField(null=True)
    file_hash = models.CharField(max_length=64, blank=True, db_index=True)
    """SHA-256 of the file's canonical JSON."""

    class Meta:
        ordering = ["-begun_at"]

    def __str__(self) -> str:
        return self.name


class WithTester(models.Manager["ProofEvent"]):
    """Whoever reads events asks what is known of their testers."""

    def get_queryset(self) -> models.QuerySet["ProofEvent"]:
        return super().get_queryset().select_related("tester")


class ProofEvent(Told):
    """What happened, as it was told.

    `entry`: an event of the isolation format without time, author and tester. `held`: the tester with its leads as it
    was then. `device_at`: what the device's own clock said; `at` is by the server's.
    """

    called = "an event"
    instead = "record what happened next"

    proof = models.ForeignKey(Proof, on_delete=models.PROTECT, related_name="events")
    type = models.CharField(max_length=20)
    entry: Any = models.JSONField()
    tester = models.ForeignKey(Tester, null=True, on_delete=models.PROTECT, related_name="proof_events")
    held: Any = models.JSONField(null=True)
    device_at = models.DateTimeField(null=True)

    objects = WithTester()

    def __str__(self) -> str:
        return f"{self.proof}: {self.type}"
