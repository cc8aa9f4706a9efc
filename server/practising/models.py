"""Cases that were gone through: which, by whom, what was done, and what it came to. None of it is of the record.

Each case has a crew of its own that nobody is a member of: whatever is written down there is that crew's, as a crew's
record always is, and no other crew's lists, files or answers can hold it.
"""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from base.append_only import LONGEST_BY, AppendOnly
from crews.models import Crew
from evenprobe.practising import Conclusion, Doing


class Practised(models.Model):
    """One person's way through one case. `case`: the file as it was opened; `name`: of one that ships, or its seed.

    `sandbox`: the crew whose record holds what is written down there; `home`: the crew of the person.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="practised")
    by_name = models.CharField(max_length=LONGEST_BY, blank=True)
    home = models.ForeignKey(Crew, on_delete=models.PROTECT, related_name="practised")
    sandbox = models.OneToOneField(Crew, on_delete=models.PROTECT, related_name="practised_in")
    name = models.CharField(max_length=120)
    case: Any = models.JSONField()
    point = models.UUIDField()
    begun_at = models.DateTimeField()

    class Meta:
        ordering = ["-begun_at"]

    def __str__(self) -> str:
        return self.name


class PractisedAct(AppendOnly):
    """What was done beside reading. `entry`: what came of it, as it was worked out then."""

    called = "what was done in a case"
    instead = "begin the case again"

    number = models.BigAutoField(primary_key=True)
    id = models.UUIDField(unique=True, default=uuid.uuid4, editable=False)
    of = models.ForeignKey(Practised, on_delete=models.PROTECT, related_name="acts")
    doing = models.CharField(max_length=16, choices=[(str(d), str(d)) for d in Doing])
    entry: Any = models.JSONField(default=dict)
    at = models.DateTimeField()

    class Meta:
        ordering = ["number"]

    def __str__(self) -> str:
        return f"{self.of}: {self.doing}"


class CaseDebrief(AppendOnly):
    """What a case came to in the end: the debrief as it was shown, and what of it progress is counted by."""

    called = "a debrief"
    instead = "begin the case again"

    of = models.OneToOneField(Practised, primary_key=True, on_delete=models.PROTECT, related_name="debrief")
    shown: Any = models.JSONField()
    condition = models.CharField(max_length=60)
    conclusion = models.CharField(max_length=12, choices=[(str(c), str(c)) for c in Conclusion])
    mastered = models.BooleanField()
    at = models.DateTimeField()

    def __str__(self) -> str:
        return f"{self.of}: {self.conclusion}"
