"""Who acts: known to whatever is written in a request, so that no write can forget to say by whom."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from datetime import datetime
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from base.headers import Respond

_acting: ContextVar[Any] = ContextVar("acting", default=None)
_at: ContextVar[datetime | None] = ContextVar("at", default=None)


def acts(person: Any) -> None:
    """From here on in this request it is this person who acts."""
    _acting.set(person)


def who_acts() -> Any:
    """The person, None where a command does."""
    return _acting.get()


def acted_at() -> datetime:
    """When it is done."""
    return _at.get() or timezone.now()


@contextmanager
def acting_as(person: Any, at: datetime | None = None) -> Iterator[None]:
    """Of what a command does in somebody's name; `at`: of the demo's past days."""
    before, then = _acting.set(person), _at.set(at)
    try:
        yield
    finally:
        _acting.reset(before)
        _at.reset(then)


def nobody_yet(respond: Respond) -> Respond:
    """Middleware: a thread that answered one person knows nothing of them when it answers the next."""

    def answer(request: HttpRequest) -> HttpResponse:
        with acting_as(None):
            return respond(request)

    return answer
