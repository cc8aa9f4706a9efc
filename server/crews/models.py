"""Crews: who works together, as what, and where they are signed in. Nobody sees what is another crew's."""

import uuid
from datetime import date
from typing import Any

from django.conf import settings
from django.contrib.sessions.backends.base import SessionBase
from django.contrib.sessions.base_session import AbstractBaseSession
from django.db import models
from django.utils import timezone

from base.append_only import LONGEST_BY, AppendOnly


class Crew(models.Model):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=120)
    rules: Any = models.JSONField(default=dict)
    """Of a proof of isolation, as the isolation format writes them; what is left out is the handbook's."""

    def __str__(self) -> str:
        return self.name


class Role(models.TextChoices):
    """What somebody is in a crew; what each may do is in `rights`."""

    KEEPER = "keeper"
    ELECTRICIAN = "electrician"
    APPRENTICE = "apprentice"
    GUEST = "guest"


class Membership(models.Model):
    """`site`, `until`: of a guest, the one site they read, and until which day. Whoever left keeps their name here."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="membership")
    crew = models.ForeignKey(Crew, on_delete=models.PROTECT, related_name="memberships")
    role = models.CharField(max_length=12, choices=Role.choices, default=Role.ELECTRICIAN)
    site = models.UUIDField(null=True)
    until = models.DateField(null=True)
    joined_at = models.DateTimeField(default=timezone.now)
    left_at = models.DateTimeField(null=True)

    def __str__(self) -> str:
        return f"{self.user} of {self.crew}"

    def ended(self, today: date) -> bool:
        """Whether it is over: they left, or a guest's last day is past."""
        return self.left_at is not None or (self.until is not None and today > self.until)


class SignedIn(AbstractBaseSession):
    """Somebody signed in on a device."""

    account = models.IntegerField(null=True, db_index=True)

    @classmethod
    def get_session_store_class(cls) -> type[SessionBase]:
        from crews.sessions import SessionStore

        return SessionStore


class SignInEvent(AppendOnly):
    """What happened to somebody's way in: who, when, from where, on what device."""

    called = "an entry of the sign-in log"
    instead = "it shows what happened"

    class What(models.TextChoices):
        JOINED = "joined"
        IN = "signed-in"
        OUT = "signed-out"
        WRONG_PASSWORD = "wrong-password"
        WRONG_CODE = "wrong-code"
        ENDED = "ended"
        PASSWORD = "password-changed"
        TWO_STEP_ON = "two-step-on"
        TWO_STEP_OFF = "two-step-off"

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="sign_ins")
    at = models.DateTimeField(default=timezone.now)
    what = models.CharField(max_length=20, choices=What.choices)
    address = models.CharField(max_length=64, blank=True)
    device = models.CharField(max_length=120, blank=True)

    class Meta:
        ordering = ["-at", "-id"]
        indexes = [models.Index(fields=["user", "-at"])]

    def __str__(self) -> str:
        return f"{self.user}: {self.what}, {self.at:%Y-%m-%d %H:%M}"


class SecondPerson(AppendOnly):
    """Somebody stood beside another of the crew for one act a life hangs on, and said so with their own password.

    The id is that of what it is for: an event, an entry, a sign-off.
    """

    called = "a second person's word"
    instead = "ask for it again for another act"

    id = models.UUIDField(primary_key=True, editable=False)
    crew = models.ForeignKey(Crew, on_delete=models.PROTECT, related_name="+")
    act = models.CharField(max_length=20)
    beside = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(default=timezone.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    by_name = models.CharField(max_length=LONGEST_BY)

    def __str__(self) -> str:
        return f"{self.by_name} beside {self.beside}: {self.act}"
