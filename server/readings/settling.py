"""When answers kept beside points are made again: beside the server after every change, else by who asks for a list.

A list waits a moment for what just changed, and is shown with old answers, marked, where that takes longer: as after
the core is another, or a file with many points came in.
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
_A_LIST_WAITS_S = 0.4
_A_LIST_MAKES = 60
"""Where nothing runs beside the server."""


class _Settling:
    """A thread beside the server's own that makes old answers again when it is woken."""

    def __init__(self) -> None:
        self._woken, self._all_made = threading.Event(), threading.Condition()
        self._asked = self._made = 0
        threading.Thread(target=self._run, daemon=True, name="settling").start()

    def wake(self) -> int:
        """Gives the number of this time."""
        with self._all_made:
            self._asked += 1
            number = self._asked
        self._woken.set()
        return number

    def wait(self, number: int, seconds: float) -> None:
        """Until all that was old at a time of that number is made again, or for so long."""
        with self._all_made:
            self._all_made.wait_for(lambda: self._made >= number, seconds)

    def _run(self) -> None:
        while True:
            self._woken.wait(_LOOKS_EVERY_S)
            self._woken.clear()
            asked = self._asked
            with logged("old answers are made again"):
                settle(old_ones())
            close_old_connections()
            with self._all_made:
                self._made = asked
                self._all_made.notify_all()


@cache
def _beside() -> _Settling:
    """From the first time it is asked for."""
    if uncounted := not_counted():
        raise RuntimeError(f"nobody counts the changes of {', '.join(uncounted)}; run `manage.py migrate`")
    return _Settling()


def settled() -> None:
    """Before a list is read."""
    if not settings.INTERPRETERS:
        settle(old_ones(), at_most=_A_LIST_MAKES)
    elif old_ones().exists():
        beside = _beside()
        beside.wait(beside.wake(), _A_LIST_WAITS_S)


def after_changes(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: whatever a request changed is made again once it is answered."""

    def answered(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        if settings.INTERPRETERS and request.method not in ("GET", "HEAD", "OPTIONS"):
            _beside().wake()
        return response

    return answered
