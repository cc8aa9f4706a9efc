"""Who acts: known to whatever is written in a request, so that no write can forget to say by whom."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Any

from django.http import HttpRequest, HttpResponse

_acting: ContextVar[Any] = ContextVar("acting", default=None)
Respond = Callable[[HttpRequest], HttpResponse]


def acts(person: Any) -> None:
    """From here on in this request it is this person who acts."""
    _acting.set(person)


def who_acts() -> Any:
    """The person, None where a command does."""
    return _acting.get()


@contextmanager
def acting_as(person: Any) -> Iterator[None]:
    """Of what a command does in somebody's name."""
    before = _acting.set(person)
    try:
        yield
    finally:
        _acting.reset(before)


def nobody_yet(respond: Respond) -> Respond:
    """Middleware: a thread that answered one person knows nothing of them when it answers the next."""

    def answer(request: HttpRequest) -> HttpResponse:
        with acting_as(None):
            return respond(request)

    return answer
