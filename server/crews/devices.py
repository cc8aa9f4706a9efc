"""Where a request comes from: its address, and the device in words a person knows it by."""

import re

from django.conf import settings
from django.http import HttpRequest

from crews.models import SignInEvent

_BROWSERS = (("Firefox", "Firefox"), ("Edg", "Edge"), ("Chrome|Chromium|CriOS", "Chrome"), ("Safari", "Safari"))
_SYSTEMS = (
    ("iPhone", "a phone"), ("iPad", "a tablet"), ("Android.*Mobile", "a phone"), ("Android", "a tablet"),
    ("Windows", "Windows"), ("Mac OS", "a Mac"), ("Linux|X11", "Linux"),
)  # fmt: skip
_LONGEST_ADDRESS = 64


def address_of(request: HttpRequest) -> str:
    """Where the request came from; behind a front of one's own, what that says of it."""
    if settings.BEHIND_A_FRONT:
        told = request.headers.get("X-Forwarded-For", "").rsplit(",", 1)[-1].strip() or "unknown"
        return told[:_LONGEST_ADDRESS]
    return str(request.META.get("REMOTE_ADDR", "unknown"))


def device_of(request: HttpRequest) -> str:
    """As its browser says of itself, in words: `Firefox on Linux`."""
    told = request.headers.get("User-Agent", "")
    browser = next((name for sign, name in _BROWSERS if re.search(sign, told)), "a browser")
    system = next((name for sign, name in _SYSTEMS if re.search(sign, told)), "")
    return f"{browser} on {system}" if system else browser


def note(request: HttpRequest, account: int, what: SignInEvent.What) -> None:
    """Write down what happened to somebody's way in."""
    SignInEvent.objects.create(user_id=account, what=what, address=address_of(request), device=device_of(request))
