"""A change of what stands on record: a supply, a circuit, a tester, a rule, a person's role."""

from typing import Any

from django.db import models

from base.append_only import Told
from crews.models import Crew


class Change(Told):
    """`of`, `name`: what was changed, by its id and as it is called now. `site`: where it stands, if anywhere.

    `before`, `after`: what differs, by field; of something new there is no before.
    """

    called = "a change"
    instead = "change it again"

    crew = models.ForeignKey(Crew, on_delete=models.PROTECT, related_name="changes")
    what = models.CharField(max_length=20)
    of = models.CharField(max_length=40)
    name = models.CharField(max_length=160)
    site = models.UUIDField(null=True)
    before: Any = models.JSONField(default=dict)
    after: Any = models.JSONField(default=dict)

    class Meta(Told.Meta):
        indexes = [models.Index(fields=["crew", "-at"]), models.Index(fields=["of", "-at"])]

    def __str__(self) -> str:
        return f"{self.what} {self.name}, {self.at:%Y-%m-%d %H:%M}"
