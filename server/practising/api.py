"""Practice over HTTP: what there is to practise, and inside a case what is done there."""

from contextlib import suppress
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from base.problems import NotFoundHere, Problems, Refused
from crews.services import crew_of
from evenprobe.formats.answers.debrief import DebriefOut
from evenprobe.practising import Doing
from practising import services
from practising.listing import practice_of
from practising.looking_back import look_back
from practising.looking_back import shared as case_shared
from practising.models import Practised
from practising.open_cases import file_of, how_far, testers_of
from practising.shapes import ActIn, CaseBeginIn, CaseMadeIn, CaseOut, PracticeList, ShownIn, ShownOut
from practising.way_in import HERE

router = Router(tags=["practice"])


@router.get("/practice", response=PracticeList)
def practice(request: HttpRequest) -> PracticeList:
    """The cases, how each went, and which comes next."""
    found = practice_of(request.user)
    services.make_ready(found.next)
    return found


@router.put("/practice/{case_id}", response={200: CaseOut, 404: Problems, 409: Problems, 422: Problems}, by_alias=True)
def begin(request: HttpRequest, case_id: UUID, data: CaseBeginIn) -> CaseOut:
    drawn = None if data.drawn is None else (data.drawn.step, data.drawn.seed)
    return _out(services.begin(request.user, case_id, *services.chosen(data.name, data.case, drawn)))


@router.post("/points/{point_id}/case", response={200: dict[str, Any], 404: Problems, 422: Problems})
def made(request: HttpRequest, point_id: UUID, data: CaseMadeIn) -> dict[str, Any]:
    """A case file with the facts of the point and the testers in use, and no name of any. Asking records nothing."""
    return services.as_kept(services.made_of(crew_of(request), point_id, data.dict()))


@router.get("/practised", response={200: CaseOut, 404: Problems})
def practised(request: HttpRequest) -> CaseOut:
    """How far the case is that this is asked in."""
    return _out(_here(request))


@router.put("/practised/acts/{act_id}", response={200: CaseOut, 404: Problems, 409: Problems, 422: Problems})
def do(request: HttpRequest, act_id: UUID, data: ActIn) -> CaseOut:
    here = _here(request)
    tester = "" if data.tester is None else str(data.tester)
    services.do(here, act_id, data.doing, data.conditions, data.entry, tester, data.point)
    out = _out(here)
    if data.doing is Doing.PROBED:
        with suppress(Refused):
            out.display = _display(here, data.entry, tester, data.point)
    return out


@router.post("/practised/shown", response={200: ShownOut, 404: Problems, 422: Problems})
def shown(request: HttpRequest, data: ShownIn) -> ShownOut:
    """What the tester shows with its probes there. Asking records nothing."""
    tester = "" if data.tester is None else str(data.tester)
    return _display(_here(request), data.entry, tester, data.point)


@router.get("/practised/debrief", response={200: DebriefOut, 404: Problems, 409: Problems}, by_alias=True)
def debrief(request: HttpRequest) -> DebriefOut:
    return DebriefOut.model_validate(look_back(_here(request)).shown)


@router.get("/practised/case", response={200: dict[str, Any], 404: Problems, 409: Problems})
def shared(request: HttpRequest) -> dict[str, Any]:
    """The case that this is asked in, as a file."""
    return case_shared(_here(request))


def _here(request: HttpRequest) -> Practised:
    """The case whose address was asked. Raises NotFoundHere outside one."""
    found: Practised | None = request.META.get(HERE)
    if found is None:
        raise NotFoundHere("case")
    return found


def _out(here: Practised) -> CaseOut:
    found = how_far(Practised.objects.prefetch_related("acts").get(pk=here.pk))
    return CaseOut.of(here, file_of(here), found, testers_of(here))


def _display(here: Practised, entry: dict[str, Any] | None, tester: str, point: UUID | None) -> ShownOut:
    reading = services.shows(here, entry, tester, point)
    return ShownOut.of(reading, file_of(here).installation.practice)
