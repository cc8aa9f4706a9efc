"""Inside a process that the core is asked in: what it does with a question, how large it grows, when it ends.

It knows nothing of the server, which makes it small and quick to begin.
"""

import multiprocessing
import os
import threading
import traceback
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any, TypeVar

from evenprobe.interpretation import forget_ensembles

Answer = TypeVar("Answer")


class CoreFailed(RuntimeError):
    """What went wrong in another process, with its traceback."""


@dataclass
class _Here:
    """How large it may grow."""

    most_mb: int = 0


def begin(most_mb: int) -> None:
    _Here.most_mb = most_mb
    threading.Thread(target=_end_with_the_server, daemon=True).start()


def _end_with_the_server() -> None:
    """Whatever the server ended by."""
    server = multiprocessing.parent_process()
    assert server is not None, "an interpreter is a process beside a server"
    server.join()
    os._exit(0)


def answered(question: Callable[..., Answer], *about: Any) -> Answer:
    """An exception goes over as words, for not each can be sent."""
    try:
        return question(*about)
    except Exception:
        raise CoreFailed(traceback.format_exc()) from None
    finally:
        if _resident_mb() > _Here.most_mb:
            forget_ensembles()


def _resident_mb() -> float:
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE") / 1024**2
