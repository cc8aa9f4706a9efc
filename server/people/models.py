"""A link that lets somebody in once: to join a crew, or to set a new password."""

import uuid
from datetime import datetime

from django.conf import settings
from django.db import models

from base.append_only import LONGEST_BY
from crews.models import Crew, Role


class OneTimeLink(models.Model):
    """Good until `ends_at`, once, unless it was withdrawn. `account`: whose password it sets; of one to join, none.

    `name`: whom it was made for, as it will stand on the record. `site`, `until`: of a guest.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    crew = models.ForeignKey(Crew, on_delete=models.PROTECT, related_name="links")
    name = models.CharField(max_length=120)
    role = models.CharField(max_length=12, choices=Role.choices)
    site = models.UUIDField(null=True)
    until = models.DateField(null=True)
    account = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT, related_name="+")
    made_at = models.DateTimeField()
    made_by_name = models.CharField(max_length=LONGEST_BY)
    ends_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True)
    withdrawn_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return f"link for {self.name}"

    def is_open(self, now: datetime) -> bool:
        return self.used_at is None and self.withdrawn_at is None and now < self.ends_at
