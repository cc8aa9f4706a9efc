"""What nobody foresaw: logged with its traceback under a short reference, which is what is said of it.

One record that cannot be shown never takes a list down: it stands there with its reference, the rest as it is.
"""

import hashlib
import logging
import sys
import traceback
from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import contextmanager
from typing import Any, TypeVar

from django.db import DatabaseError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse

from base.problems import as_body

Record = TypeVar("Record")
Line = TypeVar("Line")

logger = logging.getLogger("evenprobe")

_LOCKED = ("locked", "busy")
_OVERTAKEN = {"23505", "40001", "40P01", "55P03"}
"""PostgreSQL's codes where somebody else was quicker: there already, not in one order, a deadlock, no lock in time."""
_RETRY_AFTER_S = 1
_OF_THE_DISK: Sequence[tuple[tuple[str, ...], int, str]] = (
    (
        ("disk is full", "no space left", "disk full"),
        507,
        "The server's disk is full. This was not recorded: it stays on your device, and what is on record can be read. "
        "Whoever runs the server has to make room.",
    ),
    (
        ("readonly database", "read-only", "unable to open database file", "disk i/o error"),
        503,
        "The server cannot write to its disk. This was not recorded: it stays on your device, and what is on record "
        "can be read. Whoever runs the server has to look.",
    ),
)
"""What a database or a file system says of its disk, the status that says so, and the words."""


def _reference_to(error: BaseException, about: str) -> str:
    """Logs the failure; the same failure of the same thing has the same reference."""
    frames = traceback.extract_tb(error.__traceback__)
    where = f"{frames[-1].filename}:{frames[-1].lineno}" if frames else ""
    told = f"{about} {type(error).__qualname__} {where}".encode("utf-8", "replace")
    reference = hashlib.sha256(told).hexdigest()[:6].upper()
    logger.error("%s failed", ascii(about)[1:-1], exc_info=error, extra={"reference": reference})
    return reference


def is_locked(error: BaseException | None) -> bool:
    """Whether somebody else was writing, for longer than one waits or quicker: the same again finds what is there."""
    if getattr(error.__cause__ if error else None, "sqlstate", None) in _OVERTAKEN:
        return True
    return isinstance(error, OperationalError) and any(word in str(error) for word in _LOCKED)


def _said_of_the_disk(error: BaseException) -> tuple[int, str] | None:
    """The status and the words, where it is the disk that fails."""
    if not isinstance(error, DatabaseError | OSError):
        return None
    told = str(error).lower()
    return next(((status, text) for words, status, text in _OF_THE_DISK if any(w in told for w in words)), None)


def failed(request: HttpRequest, error: BaseException) -> HttpResponse:
    """The answer to a request that failed: with a reference, or where it only has to be sent again, that."""
    if is_locked(error):
        logger.warning("database locked: %s %s", request.method, ascii(request.path)[1:-1])
        text = "The server is busy writing. Nothing was lost here: send it again."
        answer: HttpResponse = JsonResponse(as_body([("", text)]), status=503)
        answer["Retry-After"] = str(_RETRY_AFTER_S)
        return answer
    reference = _reference_to(error, f"{request.method} {request.path}")
    of_the_disk = _said_of_the_disk(error)
    if of_the_disk is not None:
        status, text = of_the_disk
        return JsonResponse(as_body([("", f"{text} Reference {reference}.")]), status=status)
    text = f"The server failed, reference {reference}. What was typed is still here: try again, or report it."
    return JsonResponse(as_body([("", text)]), status=500)


def server_error(request: HttpRequest) -> HttpResponse:
    """What failed outside the API's own routes, as when a session cannot be written."""
    error = sys.exc_info()[1]
    return failed(request, error if error is not None else RuntimeError("no exception"))


@contextmanager
def logged(about: str) -> Iterator[None]:
    """What fails inside is logged under a reference and goes no further, for what goes on by itself."""
    try:
        yield
    except Exception as error:
        _reference_to(error, about)


def each_shown(
    records: Iterable[Record], show: Callable[[Record], Line], otherwise: Callable[[Record, str], Line]
) -> list[Line]:
    """A line a record; `otherwise` makes that of one that cannot be shown, given what is said of it."""
    lines = []
    for record in records:
        try:
            lines.append(show(record))
        except OperationalError:
            raise
        except Exception as error:
            key: Any = getattr(record, "pk", record)
            reference = _reference_to(error, f"{type(record).__name__} {key}")
            lines.append(otherwise(record, f"Cannot be shown, reference {reference}. Nothing of it is lost."))
    return lines
