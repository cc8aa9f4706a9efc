"""The crew's kit: testers, leads and adapters, and the checks made of them."""

import uuid
from typing import Any

from django.conf import settings
from django.db import models

from base.append_only import LONGEST_BY, AppendOnly, Told
from base.from_a_file import FromAFile
from crews.models import Crew
from evenprobe.formats import InstrumentEntry
from evenprobe.formats.kit import AdapterEntry, CheckEntry, LeadsEntry
from history.noting import Remembered


class Kept(Remembered, FromAFile):
    """A thing of the crew's kit."""

    crew = models.ForeignKey(Crew, on_delete=models.PROTECT, related_name="%(class)ss")
    retired_at = models.DateTimeField(null=True)

    class Meta:
        abstract = True

    def whose(self) -> tuple[Crew, None]:
        return self.crew, None


class Part(Kept):
    """Leads or an adapter. `entry`: as the kit format writes it. Taken out of use, never deleted."""

    class Role(models.TextChoices):
        LEADS = "leads"
        ADAPTER = "adapter"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    role = models.CharField(max_length=10, choices=Role.choices)
    entry: Any = models.JSONField()

    class Meta:
        ordering = ["entry__label", "id"]

    def __str__(self) -> str:
        return str(self.entry.get("label") or self.role)

    def leads(self) -> LeadsEntry:
        return LeadsEntry.model_validate(self.entry)

    def adapter(self) -> AdapterEntry:
        return AdapterEntry.model_validate(self.entry)


class Tester(Kept):
    """`entry` is a tester of the kit format without its id, which is this record's, and without leads.

    `suspect_from`, `fault`: where it was found faulty, since when it may have been, and how. `taken_over_at`,
    `taken_over_by`: of one that came from a file, when somebody said that it is the crew's, and who.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    entry: Any = models.JSONField()
    usual_leads = models.ForeignKey(Part, null=True, on_delete=models.PROTECT, related_name="+")
    suspect_from = models.DateTimeField(null=True)
    fault = models.CharField(max_length=400, blank=True)
    taken_over_at = models.DateTimeField(null=True)
    taken_over_by = models.CharField(max_length=LONGEST_BY, blank=True)

    class Meta:
        ordering = ["entry__label", "id"]

    def __str__(self) -> str:
        return str(self.entry.get("label") or self.entry["kind"])

    @property
    def is_strange(self) -> bool:
        """Known from a file, and nobody of the crew said that it is theirs."""
        return self.brought_id is not None and self.taken_over_at is None

    def instrument(self) -> InstrumentEntry:
        return InstrumentEntry.model_validate({"id": str(self.id), **self.entry})


class Check(AppendOnly, FromAFile):
    """One check of a tester, append-only; the latest of the working day is what counts."""

    called = "a check"
    instead = "make another"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    tester = models.ForeignKey(Tester, on_delete=models.PROTECT, related_name="checks")
    entry: Any = models.JSONField()
    at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=LONGEST_BY, blank=True)

    class Meta:
        ordering = ["-at", "id"]

    def __str__(self) -> str:
        return f"{self.tester}, {self.at:%Y-%m-%d %H:%M}"

    def found(self) -> CheckEntry:
        return CheckEntry.model_validate(self.entry)


class TesterFault(Told):
    """A tester found faulty, `since` when it may have been; or, with no `since`, found to be good after all."""

    called = "a fault of a tester"
    instead = "record what was found since"

    tester = models.ForeignKey(Tester, on_delete=models.PROTECT, related_name="faults")
    since = models.DateTimeField(null=True)
    what = models.CharField(max_length=400)

    def __str__(self) -> str:
        return f"{self.tester}: {self.what}"
