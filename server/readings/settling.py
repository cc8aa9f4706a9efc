"""When answers kept beside points are made again: beside the server after every change, else by who asks for a list.

What somebody records at the Bench is kept as it is answered; this is for whatever else an answer hangs on, and for all
of them when the core is another. A list waits for none of it: it shows the old answers, marked.
"""

import threading
from collections.abc import Callable
from functools import cache

from django.conf import settings
from django.db import close_old_connections
from django.http import HttpRequest, HttpResponse

from base.failures import logged
from readings.changes import not_counted
from readings.standings import old_ones, settle

_LOOKS_EVERY_S = 30.0
"""For what other processes change, as a command at a shell does."""
_AT_ONCE = 10
"""Then it is looked again what comes first: what changed meanwhile, before what is left."""
_A_LIST_MAKES = 60
"""Where nothing runs beside the server."""


class _Settling:
    """A thread beside the server's own that makes old answers again when it is woken."""

    def __init__(self) -> None:
        self._woken = threading.Event()
        self._woken.set()
        threading.Thread(target=self._run, daemon=True, name="settling").start()

    def wake(self) -> None:
        self._woken.set()

    def _run(self) -> None:
        while True:
            self._woken.wait(_LOOKS_EVERY_S)
            self._woken.clear()
            with logged("old answers are made again"):
                made = _AT_ONCE
                while made:
                    made = settle(old_ones(), at_most=_AT_ONCE)
            close_old_connections()


@cache
def _beside() -> _Settling:
    """From the first request on, for another core may be there."""
    if uncounted := not_counted():
        raise RuntimeError(f"nobody counts the changes of {', '.join(uncounted)}; run `manage.py migrate`")
    return _Settling()


def settled() -> None:
    """Before a list is read."""
    if not settings.INTERPRETERS:
        settle(old_ones(), at_most=_A_LIST_MAKES)


def after_changes(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: whatever a request changed is made again once it is answered."""

    def answered(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        if settings.INTERPRETERS:
            beside = _beside()
            if request.method not in ("GET", "HEAD", "OPTIONS"):
                beside.wake()
        return response

    return answered
