"""Crews: who works together. Everything recorded belongs to one, and nobody sees another's."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models


class Crew(models.Model):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=120)
    rules: Any = models.JSONField(default=dict)
    """Of a proof of isolation, as the isolation format writes them; what is left out is the handbook's."""

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="membership")
    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="memberships")

    def __str__(self) -> str:
        return f"{self.user} of {self.crew}"
