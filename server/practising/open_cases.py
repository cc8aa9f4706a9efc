"""A case that somebody goes through: its file, its testers and its simulated points, and how far it is."""

from datetime import datetime
from functools import lru_cache
from threading import Lock
from uuid import UUID

from base.problems import Refused
from evenprobe.formats import CaseFile, parse
from evenprobe.practising import Act, Progress, Simulated, progress
from practising.done import acts_of
from practising.models import Practised
from practising.sandbox import point_id, tester_id

_AT_ONCE = 32
"""Cases whose simulated installations are kept."""
_OPENING = Lock()


def how_far(practised: Practised) -> Progress:
    return progress(acts_so_far(practised))


def acts_so_far(practised: Practised) -> list[Act]:
    return acts_of(practised, tripped=trips(file_of(practised)))


def trips(file: CaseFile) -> bool:
    """Whether what is hunted lets nobody close its device."""
    return file.hunted is not None and file.hunted.trips


def number_of(practised: Practised, point: UUID | None) -> int:
    """Of the point in the case; the first where none was named. Raises Refused for what is none of a round's."""
    file = file_of(practised)
    if point is None or not file.solved.each:
        return 0
    points = [point_id(practised.pk, file, number) for number in range(len(file.installation.points))]
    if point not in points:
        raise Refused(("point", "is no outlet of this round"))
    return points.index(point)


def testers_of(practised: Practised) -> dict[str, str]:
    """The case's name of each tester at hand, by its id in the sandbox."""
    instruments = file_of(practised).installation.instruments
    return {str(tester_id(practised.pk, i.id)): i.id for i in instruments}


def file_of(practised: Practised) -> CaseFile:
    return _file(practised.pk, practised.begun_at)


@lru_cache(maxsize=_AT_ONCE)
def _file(case_id: UUID, _begun: datetime) -> CaseFile:
    return parse(CaseFile, Practised.objects.values_list("case", flat=True).get(pk=case_id))


@lru_cache(maxsize=_AT_ONCE)
def _simulated(case_id: UUID, begun: datetime, number: int) -> Simulated:
    case = _file(case_id, begun).case()
    return Simulated(list(case.outlets.values())[number] if case.outlets else case)


def simulated(practised: Practised, number: int = 0) -> Simulated:
    """`number`: of the point, in a round."""
    with _OPENING:
        return _simulated(practised.pk, practised.begun_at, number)
