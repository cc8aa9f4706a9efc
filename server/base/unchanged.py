"""What was given once is not given again while nothing changed: an answer's tag (RFC 9110, 8.8.3) for one number read.

The database counts every change of what is on record (`Changes`). A route that is asked again and again says with
`same_until_changed` that its answer follows from the record, from who asks, and from the time to the minute.
"""

import hashlib
from collections.abc import Callable, Iterator
from functools import cache, wraps
from typing import Any

from django.apps import apps
from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from base.headers import Respond
from base.models import Changes
from base.triggers import ALWAYS, Trigger, put, take_off
from evenprobe.this_core import this_core

_TABLE = Changes._meta.db_table
_NOT_COUNTED = {_TABLE, "crews_signedin", "crews_signinevent"}
"""Whoever is signed in where changes no answer."""
_MINUTE_S = 60
_NOT_MODIFIED = 304


@cache
def _started() -> str:
    """Another program may say the same otherwise."""
    return f"{this_core()} {timezone.now().isoformat()}"


def _triggers() -> Iterator[Trigger]:
    own = {label for label in settings.INSTALLED_APPS if not label.startswith(("django", "ninja"))}
    for model in apps.get_models():
        table = model._meta.db_table
        if (model.__module__.split(".")[0] in own or table == "auth_user") and table not in _NOT_COUNTED:
            for way in ALWAYS:
                yield Trigger(f"{table}_changes_{way.lower()}", table, way, f"UPDATE {_TABLE} SET number = number + 1")


def stop_counting(using: str, **_about: Any) -> None:
    """Before a migration."""
    take_off(_triggers(), using)


def count_changes(using: str, **_about: Any) -> None:
    """After it."""
    Changes.objects.using(using).get_or_create(pk=1)
    put(_triggers(), using)


def _tag(request: HttpRequest, changes: int) -> str:
    minute = int(timezone.now().timestamp() // _MINUTE_S)
    about = (_started(), changes, minute, request.user.pk, sorted(request.session.items()))
    return f'W/"{hashlib.sha256(repr((request.get_full_path(), about)).encode()).hexdigest()[:32]}"'


def same_until_changed(view: Callable[..., Any]) -> Callable[..., Any]:
    """Of a route; the tag is taken before its answer, so that what changes meanwhile makes it an old one."""

    @wraps(view)
    def asked(request: HttpRequest, *args: Any, **kwargs: Any) -> Any:
        changes = Changes.objects.first()
        if changes is None:
            return view(request, *args, **kwargs)
        tag = _tag(request, changes.number)
        if request.headers.get("If-None-Match") == tag:
            return HttpResponse(status=_NOT_MODIFIED, headers={"ETag": tag})
        request.META[__name__] = tag
        return view(request, *args, **kwargs)

    return asked


def goes_by_the_clock(request: HttpRequest) -> None:
    """Said by a route of an answer that holds for this moment alone, as where a proof runs."""
    request.META.pop(__name__, None)


def tagged(respond: Respond) -> Respond:
    """Middleware: the tag goes with the answer."""

    def answer(request: HttpRequest) -> HttpResponse:
        response = respond(request)
        if response.status_code == HttpResponse.status_code and __name__ in request.META:
            response["ETag"] = request.META[__name__]
        return response

    return answer
