"""Sheets of dead tests: one a circuit a visit, and what was put down on them, append-only."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from base.append_only import LONGEST_BY, Told
from base.from_a_file import FromAFile
from kit.models import Tester
from proofs.models import Proof
from sites.models import Circuit


class Sheet(FromAFile):
    """`wiring`: `ordinary` or a kind with an insulation rule of its own. `proof`: the one it relies on."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    circuit = models.ForeignKey(Circuit, on_delete=models.PROTECT, related_name="sheets")
    proof = models.ForeignKey(Proof, null=True, on_delete=models.PROTECT, related_name="sheets")
    wiring = models.CharField(max_length=20, default="ordinary")
    ring = models.BooleanField(default=False)
    temperature_c = models.FloatField(null=True)
    begun_at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=LONGEST_BY, blank=True)

    class Meta:
        ordering = ["-begun_at"]

    def __str__(self) -> str:
        return f"{self.circuit}, {self.begun_at:%Y-%m-%d}"


class SheetEntry(Told):
    """`entry`: as `formats.sheet` has it; None takes back what it supersedes. `held`: the tester as it was then."""

    called = "what is on a sheet"
    instead = "put down what supersedes it"

    sheet = models.ForeignKey(Sheet, on_delete=models.PROTECT, related_name="entries")
    entry: Any = models.JSONField(null=True)
    tester = models.ForeignKey(Tester, null=True, on_delete=models.PROTECT, related_name="sheet_entries")
    held: Any = models.JSONField(null=True)
    supersedes = models.OneToOneField("self", null=True, on_delete=models.PROTECT, related_name="superseded_by")

    def __str__(self) -> str:
        return f"{self.sheet}: {self.entry}"
