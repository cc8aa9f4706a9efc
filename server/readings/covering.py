"""Where nothing may be concluded yet, as in practice: said of a request, and what is answered to it then."""

from collections.abc import Callable

from django.http import HttpRequest

from evenprobe.formats.answers import InterpretationOut
from evenprobe.interpretation import covered
from readings.point_view import PointView

_COVERED = "readings.covered"


def cover(request: HttpRequest, while_so: Callable[[], bool]) -> None:
    """Say of a request that nothing may be concluded in its answer while that is so."""
    request.META[_COVERED] = while_so


def is_covered(request: HttpRequest) -> bool:
    """Whether nothing may be concluded in its answer."""
    while_so = request.META.get(_COVERED)
    return while_so is not None and bool(while_so())


def covered_of(view: PointView) -> InterpretationOut:
    """The answer for one point with nothing concluded: which of its readings do not count, and why not."""
    return InterpretationOut.of(covered(view.facts, view.readings))
