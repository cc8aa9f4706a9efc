"""Where somebody is signed in: a row a device, so that they can be listed and ended (Django's session engine)."""

import hashlib
from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.contrib.auth import SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore as DatabaseSessions
from django.http import HttpRequest
from django.utils import timezone

from base.problems import NotFoundHere
from crews.devices import address_of, device_of
from crews.models import SignedIn

_SEEN_EVERY = timedelta(hours=1)
"""How often it is written down that somebody is still there; a page asked for every second writes nothing."""


class SessionStore(DatabaseSessions):
    """Django's own in the database, with whose it is."""

    @classmethod
    def get_model_class(cls) -> type[SignedIn]:
        return SignedIn

    def create_model_instance(self, data: dict[str, Any]) -> SignedIn:
        row = super().create_model_instance(data)
        assert isinstance(row, SignedIn)
        row.account = int(data[SESSION_KEY]) if SESSION_KEY in data else None
        return row


def began(request: HttpRequest) -> None:
    """Somebody has just signed in: since when, from where and on what."""
    now = timezone.now().isoformat()
    request.session.update({"since": now, "seen": now, "address": address_of(request), "device": device_of(request)})
    SignedIn.objects.filter(expire_date__lt=timezone.now()).delete()


def still_there(request: HttpRequest) -> None:
    """Note that somebody was here, once an hour."""
    seen = request.session.get("seen")
    if seen is not None and timezone.now() - datetime.fromisoformat(seen) > _SEEN_EVERY:
        request.session["seen"] = timezone.now().isoformat()


def public_id(key: str) -> str:
    """What a session is known by; its key would open it."""
    return hashlib.sha256(f"{settings.SECRET_KEY}:{key}".encode()).hexdigest()[:24]


def sessions_of(account: int) -> list[tuple[SignedIn, Mapping[str, Any]]]:
    """Every device somebody is signed in on, the last seen first."""
    rows = SignedIn.objects.filter(account=account, expire_date__gt=timezone.now())
    found = [(row, row.get_decoded()) for row in rows]
    return sorted(found, key=lambda one: one[1].get("seen", ""), reverse=True)


def end(account: int, known_by: str) -> None:
    """End one of somebody's sessions. Raises NotFoundHere."""
    for row, _ in sessions_of(account):
        if public_id(row.session_key) == known_by:
            row.delete()
            return
    raise NotFoundHere("such device you are signed in on")


def end_all(account: int, but: str | None = None) -> int:
    """End somebody's sessions, `but` one; how many there were."""
    return SignedIn.objects.filter(account=account).exclude(session_key=but).delete()[0]
