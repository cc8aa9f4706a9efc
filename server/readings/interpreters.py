"""Where the core is asked: in processes beside the server, or where there are none in the one that asks.

A hard point then holds up nobody who asks something else, and the server answers while the core reckons. Points of one
kind go to the same process, so that the samples of a kind are drawn once; only where people wait there, and nobody at
another, does a question go elsewhere. A process that grew too large forgets the samples it does not need just now.
"""

import multiprocessing
import threading
import zlib
from collections.abc import Callable
from concurrent.futures import Future, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from contextlib import suppress
from functools import cache
from typing import Any, TypeVar

from django.conf import settings

from readings.interpreter import answered, begin

Answer = TypeVar("Answer")
Question = Callable[..., Answer]
"""Of `questions`: its first argument is the survey of a point."""

_WAITING = 2
"""So many in one process, and none in another: the next goes there."""


class _Interpreter:
    """One process, made when it is first asked and again where it was lost."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._pool: ProcessPoolExecutor | None = None
        self.waiting = 0

    def ask(self, question: Question[Answer], *about: Any) -> "Future[Answer]":
        with self._lock:
            if self._pool is None:
                self._pool = ProcessPoolExecutor(
                    1, multiprocessing.get_context("spawn"), begin, (settings.INTERPRETER_MB,)
                )
            pool = self._pool
            self.waiting += 1
        try:
            asked = pool.submit(answered, question, *about)
        except RuntimeError as lost:
            self._done()
            self._lose(pool)
            raise BrokenProcessPool(str(lost)) from lost
        asked.add_done_callback(lambda _asked: self._done())
        return asked

    def _done(self) -> None:
        with self._lock:
            self.waiting -= 1

    def answer(self, question: Question[Answer], *about: Any) -> Answer:
        """Asked once more where the process was lost on the way, as by a system short of memory."""
        try:
            return self.ask(question, *about).result()
        except BrokenProcessPool:
            if self._pool is not None:
                self._lose(self._pool)
            return self.ask(question, *about).result()

    def _lose(self, pool: ProcessPoolExecutor) -> None:
        with self._lock:
            if self._pool is pool:
                self._pool = None
        pool.shutdown(wait=False)


@cache
def _interpreters() -> list[_Interpreter]:
    return [_Interpreter() for _ in range(settings.INTERPRETERS)]


def ask(kind: str, question: Question[Answer], survey: str, *about: Any) -> Answer:
    """The answer of the core. `kind`: what points that share their samples have in common."""
    if not settings.INTERPRETERS:
        return question(survey, *about)
    return _interpreter_of(kind).answer(question, survey, *about)


def ask_ahead(kind: str, question: Question[Any], survey: str) -> None:
    """What will be wanted soon; nobody waits for it."""
    if settings.INTERPRETERS:
        with suppress(BrokenProcessPool):
            _interpreter_of(kind).ask(question, survey)
    else:
        threading.Thread(target=question, args=(survey,), daemon=True).start()


def _interpreter_of(kind: str) -> _Interpreter:
    found = _interpreters()
    own = found[zlib.crc32(kind.encode()) % len(found)]
    if own.waiting < _WAITING:
        return own
    return next((other for other in found if not other.waiting), own)
