"""What was given once is not given again while nothing changed: an answer's tag (RFC 9110, 8.8.3) for one number read.

The database counts every change of what is on record (`Changes`). A route that is asked again and again says with
`same_until_changed` that its answer follows from the record, from who asks, and from the time to the minute.
"""

import hashlib
from collections.abc import Callable, Hashable, Iterator
from functools import cache, wraps
from threading import Lock
from typing import Any, TypeVar

from django.apps import apps
from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from base.headers import Respond
from base.models import Changes
from base.triggers import ALWAYS, Trigger, put, take_off
from evenprobe.this_core import this_core

T = TypeVar("T")
_TABLE = Changes._meta.db_table
_OF_READINGS = {"work_reading", "work_pointstanding"}
_NOT_COUNTED = {_TABLE, "crews_signedin", "crews_signinevent"}
"""Whoever is signed in where changes no answer."""
_MINUTE_S = 60
_JSON = "application/json; charset=utf-8"
_NOT_MODIFIED = 304
_AUDIENCE, _TAG = f"{__name__}.audience", f"{__name__}.tag"
_LARGEST_KEPT = 256 * 1024


@cache
def _started() -> str:
    """Another program may say the same otherwise."""
    return f"{this_core()} {timezone.now().isoformat()}"


def _triggers() -> Iterator[Trigger]:
    own = {label for label in settings.INSTALLED_APPS if not label.startswith(("django", "ninja"))}
    for model in apps.get_models():
        table = model._meta.db_table
        if (model.__module__.split(".")[0] in own or table == "auth_user") and table not in _NOT_COUNTED:
            which = f"id = {Changes.EVERYTHING}" if table in _OF_READINGS else "id > 0"
            counts = f"UPDATE {_TABLE} SET number = number + 1 WHERE {which}"
            yield from (Trigger(f"{table}_changes_{way.lower()}", table, way, counts) for way in ALWAYS)


def stop_counting(using: str, **_about: Any) -> None:
    """Before a migration."""
    take_off(_triggers(), using)


def count_changes(using: str, **_about: Any) -> None:
    """After it."""
    for row in (Changes.EVERYTHING, Changes.BESIDE_READINGS):
        Changes.objects.using(using).get_or_create(pk=row)
    put(_triggers(), using)


class _Kept:
    """What was worked out last, by what it was worked out of."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._kept: dict[Hashable, Any] = {}
        self._lock = Lock()

    def known(self, key: Hashable) -> Any:
        return self._kept.get(key)

    def keep(self, key: Hashable, value: Any) -> None:
        with self._lock:
            while len(self._kept) >= self._most:
                del self._kept[next(iter(self._kept))]
            self._kept[key] = value

    def forget(self) -> None:
        with self._lock:
            self._kept.clear()


_ANSWERS, PARTS = _Kept(96), _Kept(512)


def forget_answers() -> None:
    """As after another record was put in place of this one."""
    _ANSWERS.forget()
    PARTS.forget()


def part_of_an_answer(about: Hashable, make: Callable[[], T]) -> T:
    """What follows from the record and the time to the minute, where the whole answer goes by the clock."""
    changes = changes_of(Changes.EVERYTHING)
    if changes is None:
        return make()
    key = (about, changes, _minute())
    known: T | None = PARTS.known(key)
    if known is None:
        known = make()
        PARTS.keep(key, known)
    return known


def changes_of(what: int) -> int | None:
    """How many there were; none where nobody counts them."""
    return Changes.objects.filter(pk=what).values_list("number", flat=True).first()


def _minute() -> int:
    return int(timezone.now().timestamp() // _MINUTE_S)


def answers_to(request: HttpRequest, audience: str) -> None:
    """Who is told the same as whoever else is of this audience."""
    request.META[_AUDIENCE] = audience


def _tag(request: HttpRequest, changes: int) -> str:
    about = (_started(), changes, _minute(), request.META.get(_AUDIENCE, f"user {request.user.pk}"))
    return f'W/"{hashlib.sha256(repr((request.get_full_path(), about)).encode()).hexdigest()[:32]}"'


def same_until_changed(first: Callable[[], None]) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Of a route; `first`: what may change something on record before it is answered.

    The tag is taken before the answer, so that what changes meanwhile makes it an old one.
    """

    def of_route(view: Callable[..., Any]) -> Callable[..., Any]:
        @wraps(view)
        def asked(request: HttpRequest, *args: Any, **kwargs: Any) -> Any:
            first()
            changes = changes_of(Changes.EVERYTHING)
            if changes is None:
                return view(request, *args, **kwargs)
            tag = _tag(request, changes)
            if request.headers.get("If-None-Match") == tag:
                return HttpResponse(status=_NOT_MODIFIED, headers={"ETag": tag})
            known = _ANSWERS.known(tag)
            if known is not None:
                return HttpResponse(known, content_type=_JSON, headers={"ETag": tag})
            request.META[_TAG] = tag
            return view(request, *args, **kwargs)

        return asked

    return of_route


def goes_by_the_clock(request: HttpRequest) -> None:
    """Said by a route of an answer that holds for this moment alone, as where a proof runs."""
    request.META.pop(_TAG, None)


def tagged(respond: Respond) -> Respond:
    """Middleware: the tag goes with the answer, which is kept for the next."""

    def answer(request: HttpRequest) -> HttpResponse:
        response = respond(request)
        tag = request.META.get(_TAG)
        if tag is not None and response.status_code == HttpResponse.status_code:
            response["ETag"] = tag
            if len(response.content) <= _LARGEST_KEPT:
                _ANSWERS.keep(tag, response.content)
        return response

    return answer
