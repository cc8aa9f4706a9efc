"""Hunts over HTTP."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from base.problems import Problems, Refused
from base.unchanged import same_until_changed
from crews.services import crew_of
from evenprobe.practices import PRACTICES
from hunts.layouts import places_of
from hunts.presenters.intake import intake_in
from hunts.presenters.lines import lines_of, shown
from hunts.services import TOLD, Begun, begin, hunt_of, hunts_of, keep
from hunts.shapes import HuntEventIn, HuntIn, HuntLine, HuntLiveIn, HuntOut, IntakeOut
from meters.scpi import FUNCTIONS
from meters.services import shown_by
from meters.shapes import LiveOut
from meters.wire import Setup, on_a_hunt
from readings.settling import settled
from sites.services import site_of

router = Router(tags=["hunts"])
_ASKED = ("between", "chain", "ways", "outlets", "fixed_on", "fixed_off")


@router.get("/hunts", response=list[HuntLine])
@same_until_changed(settled)
def hunts(request: HttpRequest) -> list[HuntLine]:
    """The latest first."""
    return lines_of(hunts_of(crew_of(request)))


@router.get("/sites/{site_id}/hunts/intake", response={200: IntakeOut, 404: Problems})
def intake(request: HttpRequest, site_id: UUID) -> IntakeOut:
    return intake_in(PRACTICES[site_of(crew_of(request), site_id).practice])


@router.get("/hunts/{hunt_id}", response={200: HuntOut, 404: Problems}, by_alias=True)
@same_until_changed(settled)
def one_hunt(request: HttpRequest, hunt_id: UUID) -> HuntOut:
    return shown(hunt_of(crew_of(request), hunt_id))


@router.put("/hunts/{hunt_id}", response={200: HuntOut, 404: Problems, 409: Problems, 422: Problems}, by_alias=True)
def begin_hunt(request: HttpRequest, hunt_id: UUID, data: HuntIn) -> HuntOut:
    told = {key: text for key in TOLD if (text := getattr(data, key).strip())}
    sent: dict[str, Any] = data.dict(exclude_none=True)
    asked = {key: sent[key] for key in _ASKED if sent.get(key)}
    begun = Begun(data.circuit, data.board, data.happened, data.kind, told, asked)
    return shown(begin(crew_of(request), request.user, hunt_id, begun))


@router.put(
    "/hunts/{hunt_id}/events/{event_id}",
    response={200: HuntOut, 404: Problems, 409: Problems, 422: Problems},
    by_alias=True,
)
def keep_event(request: HttpRequest, hunt_id: UUID, event_id: UUID, data: HuntEventIn) -> HuntOut:
    crew = crew_of(request)
    what = data.kind, data.entry, data.happened(), data.tester
    return shown(keep(crew, request.user, hunt_id, event_id, *what))


@router.post("/hunts/{hunt_id}/live/{tester_id}", response={200: LiveOut, 404: Problems, 422: Problems})
def live_on_a_hunt(request: HttpRequest, hunt_id: UUID, tester_id: UUID, data: HuntLiveIn) -> LiveOut:
    """What the meter on the wire shows there. Asking records nothing."""
    crew = crew_of(request)
    hunt = hunt_of(crew, hunt_id)
    if data.at not in places_of(hunt):
        raise Refused(("at", f"{data.at!r} is no place of this hunt"))
    place = on_a_hunt(str(hunt.id), data.at, data.side)
    is_dead = FUNCTIONS[data.function].unit == "ohm" if data.function in FUNCTIONS else False
    setup = Setup(data.function, place, data.from_, data.to, device_open=is_dead)
    return LiveOut.of(*shown_by(crew, tester_id, setup))
