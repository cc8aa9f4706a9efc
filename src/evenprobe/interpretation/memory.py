"""What an ensemble has worked out already: it makes an answer faster and is never part of it.

Everything kept here follows from its key alone, so it makes no difference who asked for it first, or that two threads
worked it out at once.
"""

from collections.abc import Callable
from threading import Lock
from typing import Generic, TypeVar

Key = TypeVar("Key")
Value = TypeVar("Value")


class Memory(Generic[Key, Value]):
    """At most `most` values, the oldest dropped for a new one; safe under threads."""

    def __init__(self, most: int) -> None:
        self.most = most
        self._kept: dict[Key, Value] = {}
        self._lock = Lock()

    def known(self, key: Key) -> Value | None:
        return self._kept.get(key)

    def of(self, key: Key, work_out: Callable[[], Value]) -> Value:
        """The value of a key, worked out where it is not known. Nobody waits for another thread's work."""
        with self._lock:
            if key in self._kept:
                return self._kept[key]
        return self.keep(key, work_out())

    def keep(self, key: Key, value: Value) -> Value:
        """The value as it is kept from now on: what another thread kept first stays."""
        with self._lock:
            while len(self._kept) >= self.most and key not in self._kept:
                del self._kept[next(iter(self._kept))]
            return self._kept.setdefault(key, value)

    def items(self) -> list[tuple[Key, Value]]:
        with self._lock:
            return list(self._kept.items())
