"""Planning a visit and recording how it goes. Append-only; a retry is the same record, not a second."""

from dataclasses import dataclass
from datetime import date, datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.planning import Work
from sites.models import Circuit, Site
from sites.services import site_of
from visits.models import Visit, VisitEvent

_LONGEST_WHY = 400
WORKS = (Work.DEAD_TESTS, Work.LIVE_TESTS, Work.ISOLATE)
"""What can be asked for; isolating comes with the dead tests by itself."""


@dataclass(frozen=True)
class Planned:
    """What a visit is planned with."""

    why: str
    planned_for: date
    circuits: list[UUID]
    works: list[str]


def visits_of(crew: Crew) -> QuerySet[Visit]:
    return Visit.objects.filter(site__crew=crew).select_related("site").prefetch_related("events")


def _visit_of(crew: Crew, visit_id: UUID) -> Visit:
    found = visits_of(crew).filter(id=visit_id).first()
    if found is None:
        raise NotFoundHere("visit")
    return found


def stands(visit: Visit) -> str:
    """Planned, begun or closed. One that was closed and is begun again goes on."""
    told = [e.kind for e in visit.events.all() if e.kind in (VisitEvent.Kind.BEGUN, VisitEvent.Kind.CLOSED)]
    return str(told[-1]) if told else "planned"


def with_others(crew: Crew, visit_id: UUID) -> tuple[Visit, list[Visit]]:
    """A visit, and all visits to its site."""
    others = list(visits_of(crew).filter(site__visits__id=visit_id))
    found = next((visit for visit in others if visit.id == visit_id), None)
    if found is None:
        raise NotFoundHere("visit")
    return found, others


@transaction.atomic
def put_visit(crew: Crew, author: Author, visit_id: UUID, site_id: UUID, planned: Planned) -> Visit:
    """Plan a visit. The same id with the same content again changes nothing; another plan is an event of its own."""
    site = site_of(crew, site_id)
    why = _why(planned.why)
    circuits, works = _plan(site, planned)
    existing = Visit.objects.filter(id=visit_id).first()
    if existing is not None:
        was = (existing.site_id, existing.why, existing.planned_for, existing.circuits, existing.works)
        if was != (site.id, why, planned.planned_for, circuits, works):
            raise Refused(("id", "this id already belongs to another visit"), status=409)
        return _visit_of(crew, visit_id)
    Visit.objects.create(
        id=visit_id, site=site, why=why, planned_for=planned.planned_for, circuits=circuits, works=works,
        made_at=timezone.now(), by=person_of(author), by_name=name_of(author),
    )  # fmt: skip
    return _visit_of(crew, visit_id)


@transaction.atomic
def keep(
    crew: Crew,
    author: Author,
    visit_id: UUID,
    event_id: UUID,
    kind: str,
    entry: dict[str, Any],
    happened: datetime | None = None,
) -> Visit:
    """Keep one event. `happened`: when, by the server's clock, where a device kept it until there was a line."""
    visit = _visit_of(crew, visit_id)
    checked = _checked(visit, kind, entry)
    existing = VisitEvent.objects.filter(id=event_id).first()
    if existing is not None:
        if (existing.visit_id, existing.kind, existing.entry) != (visit.id, kind, checked):
            raise Refused(("id", "this id already belongs to an event with other content"), status=409)
        return visit
    VisitEvent.objects.create(
        id=event_id, visit=visit, kind=kind, entry=checked, at=happened or timezone.now(),
        by=person_of(author), by_name=name_of(author),
    )  # fmt: skip
    return _visit_of(crew, visit_id)


def _checked(visit: Visit, kind: str, entry: dict[str, Any]) -> dict[str, Any]:
    """What of an entry is kept. Raises Refused for what cannot be written down."""
    match kind:
        case VisitEvent.Kind.PLANNED:
            planned = Planned("", visit.planned_for, list(map(_id, entry.get("circuits", []))), entry.get("works", []))
            circuits, works = _plan(visit.site, planned)
            return {"circuits": circuits, "works": works}
        case VisitEvent.Kind.LEFT_OPEN | VisitEvent.Kind.NOTED:
            return {"what": _why(str(entry.get("what", "")), "entry.what")}
        case VisitEvent.Kind.PUT_RIGHT:
            left = {str(e.id) for e in visit.events.all() if e.kind == VisitEvent.Kind.LEFT_OPEN}
            if entry.get("event") not in left:
                raise Refused(("entry.event", "is nothing that was left open on this visit"))
            return {"event": entry["event"]}
        case VisitEvent.Kind.BEGUN | VisitEvent.Kind.CLOSED:
            return {}
        case _:
            raise Refused(("kind", f"must be one of {', '.join(VisitEvent.Kind.values)}"))


def _id(written: Any) -> UUID:
    try:
        return UUID(str(written))
    except ValueError:
        raise Refused(("entry.circuits", "must name circuits by their ids")) from None


def _why(text: str, path: str = "why") -> str:
    text = text.strip()
    if not text:
        raise Refused((path, "say in a few words what it is about"))
    if len(text) > _LONGEST_WHY:
        raise Refused((path, f"is longer than {_LONGEST_WHY} characters"))
    return text


def _plan(site: Site, planned: Planned) -> tuple[list[str], list[str]]:
    """Circuits of the site and works there are, each once."""
    own = set(Circuit.objects.filter(board__supply__site=site).values_list("id", flat=True))
    if not planned.circuits:
        raise Refused(("circuits", "choose one circuit or more"))
    for index, circuit in enumerate(planned.circuits):
        if circuit not in own:
            raise Refused((f"circuits[{index}]", "no such circuit at this site"), status=404)
    works = [str(work) for work in Work if work in planned.works]
    strange = sorted(set(planned.works) - set(works))
    if strange or not works:
        raise Refused(("works", f"must be some of {', '.join(WORKS)}"))
    return [str(circuit) for circuit in dict.fromkeys(planned.circuits)], works
