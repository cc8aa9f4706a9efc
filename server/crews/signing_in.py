"""Signing in, so that nobody without an account can stop those who have one.

A password's hash is meant to be slow (NIST SP 800-63B, 5.1.1.2), so whoever sends many names and passwords could have
the processor to themselves. After five misses the next try of a name, or from an address, has to wait, and is answered
without a hash. Only one hash at a time is made for strangers; a device somebody signed in on before has a lane of its
own. What is counted is kept in memory: the server is one process, and a restart forgives.
"""

import threading
import time
from collections import OrderedDict
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import timedelta

from django.conf import settings
from django.contrib.auth import authenticate, login
from django.contrib.auth.models import User
from django.core.signing import BadSignature
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils import timezone

from base.headers import Respond
from base.problems import Refused, as_body
from crews.devices import address_of, note
from crews.models import SignInEvent
from crews.sessions import began
from crews.two_step import code_is_right, has_two_step

MISSES_FREE = 5
FIRST_WAIT_S, LONGEST_WAIT_S = 1.0, 60.0
FORGOTTEN_AFTER_S = 15 * 60.0
LOGGED_AN_HOUR = 20
REMEMBERED = 10_000
"""Names and addresses counted at a time; the oldest is forgotten for a new one."""
_LANE_WAIT_S = 0.6
_SIGN_IN = "/api/session"
KNOWN_DEVICE = "known_device"
_KNOWN_FOR_S = 365 * 24 * 3600


Keys = tuple[tuple[str, ...], ...]


@dataclass
class _Count:
    misses: int = 0
    last: float = 0.0


class Misses:
    """How often each of some keys missed lately, and how long its next try has to wait."""

    def __init__(self) -> None:
        self._counts: OrderedDict[tuple[str, ...], _Count] = OrderedDict()
        self._lock = threading.Lock()

    def wait_s(self, key: tuple[str, ...], now: float) -> float:
        with self._lock:
            count = self._counts.get(key)
            if count is None or now - count.last > FORGOTTEN_AFTER_S or count.misses < MISSES_FREE:
                return 0.0
            wait = min(LONGEST_WAIT_S, FIRST_WAIT_S * 2.0 ** min(count.misses - MISSES_FREE, 30))
            return max(0.0, count.last + wait - now)

    def missed(self, key: tuple[str, ...], now: float) -> None:
        with self._lock:
            count = self._counts.pop(key, _Count())
            if now - count.last > FORGOTTEN_AFTER_S:
                count.misses = 0
            count.misses, count.last = count.misses + 1, now
            self._counts[key] = count
            while len(self._counts) > REMEMBERED:
                self._counts.popitem(last=False)

    def forget(self, key: tuple[str, ...]) -> None:
        with self._lock:
            self._counts.pop(key, None)


misses = Misses()
_STRANGERS, _KNOWN = threading.BoundedSemaphore(1), threading.BoundedSemaphore(1)


def person_signing_in(request: HttpRequest, name: str, password: str, code: str = "") -> User:
    """Who it is. Raises Refused with 403 for a wrong name, password or code, 429 where the next try has to wait.

    `code`: of whoever signs in in two steps; asked for only once name and password are right.
    """
    keys = _keys(request, name)
    user = _hashed(request, keys, name, password)
    if user is None:
        raise Refused(("password", "Wrong name or password"), status=403)
    if has_two_step(user):
        if not code:
            raise Refused(("code", "Type the code from your app"), status=403)
        if not code_is_right(user, code):
            _missed(request, keys, user, SignInEvent.What.WRONG_CODE)
            raise Refused(("code", "Wrong code, or one that was used already"), status=403)
    misses.forget(keys[0])
    return user


def password_is_right(request: HttpRequest, person: User, password: str) -> bool:
    """Of somebody who is signed in. Slowed as signing in is."""
    keys = _keys(request, person.get_username())[:1]
    right = _hashed(request, keys, person.get_username(), password) == person
    if right:
        misses.forget(keys[0])
    return right


def _keys(request: HttpRequest, name: str) -> Keys:
    """What is counted: the name at this address, and of a device nobody signed in on yet the address."""
    of_name, of_address = ("name", name.casefold(), address_of(request)), ("address", address_of(request))
    return (of_name,) if _known_on(request, name) else (of_name, of_address)


def _hashed(request: HttpRequest, keys: Keys, name: str, password: str) -> User | None:
    """Whose name and password these are. Raises Refused where the next try has to wait."""
    if too_soon := _too_soon(keys):
        raise Refused(("", too_soon), status=429)
    with _lane(known=len(keys) == 1):
        user = authenticate(request, username=name, password=password)
    if isinstance(user, User):
        return user
    _missed(request, keys, User.objects.filter(username=name).first(), SignInEvent.What.WRONG_PASSWORD)
    return None


def _too_soon(keys: Keys) -> str:
    """Why the next try of some keys has to wait, where it has to."""
    wait = max((misses.wait_s(key, time.monotonic()) for key in keys), default=0.0)
    return f"Too many wrong tries; try again in {_in_words(wait)}" if wait > 0 else ""


def turned_away(respond: Respond) -> Respond:
    """Middleware before all that costs anything: a flood from an address that has to wait is answered at once.

    Who comes from a device that somebody signed in on is looked at further in, by name.
    """

    def answer(request: HttpRequest) -> HttpResponse:
        if request.method == "POST" and request.path == _SIGN_IN and not _device_of_somebody(request):
            too_soon = _too_soon((("address", address_of(request)),))
            if too_soon:
                return JsonResponse(as_body([("", too_soon)]), status=429)
        return respond(request)

    return answer


def _missed(request: HttpRequest, keys: Keys, user: User | None, what: SignInEvent.What) -> None:
    """Counted, and in the log of whoever it was tried on, up to so many an hour: a flood fills no disk."""
    for key in keys:
        misses.missed(key, time.monotonic())
    if user is None:
        return
    lately = SignInEvent.objects.filter(user=user, what=what, at__gt=timezone.now() - timedelta(hours=1))
    if lately.count() < LOGGED_AN_HOUR:
        note(request, user.pk, what)


def let_in(request: HttpRequest, response: HttpResponse, user: User, what: SignInEvent.What) -> None:
    """Signed in on this device from here on, and in the log as `what`."""
    login(request, user)
    began(request)
    note(request, user.pk, what)
    _remember_device(response, user.get_username())


def _remember_device(response: HttpResponse, name: str) -> None:
    """Somebody of this name signed in here: on this device they are no stranger the next time."""
    response.set_signed_cookie(
        KNOWN_DEVICE, name.casefold(), max_age=_KNOWN_FOR_S, httponly=True, samesite="Lax",
        secure=settings.SESSION_COOKIE_SECURE,
    )  # fmt: skip


def _known_on(request: HttpRequest, name: str) -> bool:
    return _device_of_somebody(request) == name.casefold()


def _device_of_somebody(request: HttpRequest) -> str | None:
    """The name of who signed in on it last."""
    try:
        return request.get_signed_cookie(KNOWN_DEVICE, max_age=_KNOWN_FOR_S)
    except (KeyError, BadSignature):
        return None


@contextmanager
def _lane(*, known: bool) -> Iterator[None]:
    """A hash at a time: strangers do not wait for one another, those who are known wait a little."""
    lane = _KNOWN if known else _STRANGERS
    if not lane.acquire(timeout=_LANE_WAIT_S if known else 0):
        raise Refused(("", "Many are signing in at once; try again in a moment"), status=429)
    try:
        yield
    finally:
        lane.release()


def _in_words(seconds: float) -> str:
    whole = int(seconds) + 1
    return "1 second" if whole == 1 else f"{whole} seconds"
