"""Files that were brought in: who did, when, and the file's hash. Everything that came from one points at it."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from base.append_only import AppendOnly
from crews.models import Crew

_SHOWN = 8
"""Digits of the hash that stand beside a name."""


class BroughtFile(AppendOnly):
    """`what`: which sort of file. `chains`: of the sign-offs in it, link by link, as they were elsewhere."""

    called = "where something came from"
    instead = "bring the file in again"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    crew = models.ForeignKey(Crew, on_delete=models.PROTECT, related_name="brought")
    name = models.CharField(max_length=200)
    what = models.CharField(max_length=20)
    sha256 = models.CharField(max_length=64)
    chains: Any = models.JSONField(default=list)
    at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=160, blank=True)

    class Meta:
        ordering = ["-at"]
        constraints = [models.UniqueConstraint(fields=["crew", "what", "sha256"], name="one row a file")]

    def __str__(self) -> str:
        return self.name

    @property
    def said(self) -> str:
        """Which file, and who brought it in."""
        return f"file {self.sha256[:_SHOWN]}, brought in by {self.by_name}"

    @property
    def _mark(self) -> str:
        return f"({self.said})"

    def marked(self, name: str) -> str:
        """A name that stands in the file, as it is shown wherever it is."""
        return f"{name} {self._mark}".strip()

    def unmarked(self, shown: str) -> str:
        """The same as it stands in the file."""
        return shown.removesuffix(self._mark).rstrip()
