"""Visits over HTTP."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from base.problems import Problems
from crews.services import at_own_site, crew_of
from sites.services import site_of
from visits.presenters import lines_of, plannable, shown
from visits.services import Planned, keep, put_visit, visits_of, with_others
from visits.shapes import PlannableOut, VisitEventIn, VisitIn, VisitLine, VisitOut

router = Router(tags=["visits"])


@router.get("/visits", response=list[VisitLine])
def visits(request: HttpRequest) -> list[VisitLine]:
    """The latest first."""
    return lines_of(at_own_site(request, visits_of(crew_of(request)), "site"))


@router.get("/sites/{site_id}/plannable", response={200: list[PlannableOut], 404: Problems})
def plannable_at(request: HttpRequest, site_id: UUID) -> list[PlannableOut]:
    """The circuits of a site that a visit can be planned for, and when each was last tested."""
    return plannable(site_of(crew_of(request), site_id))


@router.get("/visits/{visit_id}", response={200: VisitOut, 404: Problems})
def one_visit(request: HttpRequest, visit_id: UUID) -> VisitOut:
    return _shown(request, visit_id)


@router.put("/visits/{visit_id}", response={200: VisitOut, 404: Problems, 409: Problems, 422: Problems})
def plan_visit(request: HttpRequest, visit_id: UUID, data: VisitIn) -> VisitOut:
    planned = Planned(data.why, data.planned_for, data.circuits, data.works)
    put_visit(crew_of(request), request.user, visit_id, data.site, planned)
    return _shown(request, visit_id)


@router.put(
    "/visits/{visit_id}/events/{event_id}", response={200: VisitOut, 404: Problems, 409: Problems, 422: Problems}
)
def keep_visit_event(request: HttpRequest, visit_id: UUID, event_id: UUID, data: VisitEventIn) -> VisitOut:
    keep(crew_of(request), request.user, visit_id, event_id, data.kind, data.entry, data.happened())
    return _shown(request, visit_id)


def _shown(request: HttpRequest, visit_id: UUID) -> VisitOut:
    crew = crew_of(request)
    return shown(*with_others(crew, visit_id), crew)
