"""Meters over HTTP: their links, and what one shows now."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from base.problems import Problems
from crews.models import Crew
from crews.services import crew_of
from meters.services import links_of, live_at, put_link
from meters.shapes import LiveIn, LiveOut, MeterLinkIn, MeterLinkOut, MeterLinksOut
from meters.wire import Setup

router = Router(tags=["meters"])


@router.get("/meters", response=MeterLinksOut)
def meters(request: HttpRequest) -> MeterLinksOut:
    return _links(crew_of(request))


@router.put("/testers/{tester_id}/link", response={200: MeterLinksOut, 404: Problems, 422: Problems})
def save_link(request: HttpRequest, tester_id: UUID, data: MeterLinkIn) -> MeterLinksOut:
    """An empty address takes the tester off the wire."""
    crew = crew_of(request)
    put_link(crew, tester_id, data.address)
    return _links(crew)


@router.post("/points/{point_id}/live/{tester_id}", response={200: LiveOut, 404: Problems, 422: Problems})
def live(request: HttpRequest, point_id: UUID, tester_id: UUID, data: LiveIn) -> LiveOut:
    """What the meter shows with its probes there. Asking records nothing."""
    setup = Setup(
        data.function,
        str(point_id),
        data.from_,
        data.to,
        data.load_here_a,
        data.load_elsewhere_a,
        data.load_between,
        data.device_open,
    )
    return LiveOut.of(*live_at(crew_of(request), point_id, tester_id, setup, begin_anew=data.begin_anew))


def _links(crew: Crew) -> MeterLinksOut:
    return MeterLinksOut(
        links=[
            MeterLinkOut(tester=link.tester_id, label=str(link.tester), address=link.address) for link in links_of(crew)
        ]
    )
