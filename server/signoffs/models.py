"""The crew's chain of sign-offs. What was signed is kept as the bytes that were hashed."""

import json
import uuid
from typing import Any

from django.db import models

from base.append_only import Signed
from crews.models import Crew
from evenprobe.signing import Link
from sites.models import Site


class SignOff(Signed):
    """`content`: canonical JSON of a `SignedContent`. `what`, `of`: what it is of, by its id."""

    called = "a sign-off"
    instead = "sign what is so now"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    crew = models.ForeignKey(Crew, on_delete=models.PROTECT, related_name="sign_offs")
    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="sign_offs")
    what = models.CharField(max_length=10)
    of = models.UUIDField()
    name = models.CharField(max_length=160)
    signed_at = models.DateTimeField()
    number = models.PositiveIntegerField()
    content = models.TextField()
    content_sha256 = models.CharField(max_length=64)
    link_sha256 = models.CharField(max_length=64)

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(
                fields=["crew", "number"], condition=models.Q(brought=None), name="one sign-off a number"
            )
        ]

    def __str__(self) -> str:
        return f"{self.number}: {self.name}"

    def link(self) -> Link:
        return Link(self.number, self.content_sha256, self.link_sha256)

    def said(self) -> dict[str, Any]:
        """The content as plain data."""
        found: dict[str, Any] = json.loads(self.content)
        return found
