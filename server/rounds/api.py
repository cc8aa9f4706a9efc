"""Rounds over HTTP."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from base.problems import Problems
from base.unchanged import same_until_changed
from crews.services import crew_of
from readings.settling import settled
from readings.standings import old_ones, settle
from rounds.presenters import lines_of, shown
from rounds.services import begin, keep, round_of, rounds_of
from rounds.shapes import RoundEventIn, RoundIn, RoundLine, RoundOut

router = Router(tags=["rounds"])


@router.get("/rounds", response=list[RoundLine])
@same_until_changed(settled)
def rounds(request: HttpRequest) -> list[RoundLine]:
    """The latest first."""
    return lines_of(rounds_of(crew_of(request)))


@router.get("/rounds/{round_id}", response={200: RoundOut, 404: Problems}, by_alias=True)
@same_until_changed(settled)
def one_round(request: HttpRequest, round_id: UUID) -> RoundOut:
    return shown(round_of(crew_of(request), round_id))


@router.put("/rounds/{round_id}", response={200: RoundOut, 404: Problems, 409: Problems, 422: Problems}, by_alias=True)
def begin_round(request: HttpRequest, round_id: UUID, data: RoundIn) -> RoundOut:
    crew = crew_of(request)
    return shown(begin(crew, request.user, round_id, data.site, data.circuit, data.room, data.tester))


@router.put(
    "/rounds/{round_id}/events/{event_id}",
    response={200: RoundOut, 404: Problems, 409: Problems, 422: Problems},
    by_alias=True,
)
def keep_event(request: HttpRequest, round_id: UUID, event_id: UUID, data: RoundEventIn) -> RoundOut:
    crew = crew_of(request)
    told = data.point, data.kind, data.reason, data.happened()
    kept = keep(crew, request.user, round_id, event_id, *told, tripped=data.tripped)
    settle(old_ones().filter(point=data.point))
    return shown(kept)
