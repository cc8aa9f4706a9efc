"""Beginning a round and recording what happens on it. Append-only; a retry is the same record, not a second."""

from collections.abc import Sequence
from datetime import datetime
from functools import reduce
from operator import or_
from uuid import UUID

from django.db import transaction
from django.db.models import Q, QuerySet
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.wiring import OUTLETS
from kit.services import tester_of
from readings.point_view import with_readings_since
from readings.services import record
from rounds.models import Round, RoundEvent
from sites.models import IN_ORDER, Circuit, Point, PointsInUse, Site
from sites.services import find, site_of

SHORTEST_SKIP_REASON = 3


def rounds_of(crew: Crew) -> QuerySet[Round]:
    return (
        Round.objects.filter(site__crew=crew)
        .select_related("site", "circuit", "tester__usual_leads")
        .prefetch_related("events__point", "circuit__points")
    )


def round_of(crew: Crew, round_id: UUID) -> Round:
    found = rounds_of(crew).filter(id=round_id).first()
    if found is None:
        raise NotFoundHere("round")
    return found


def _outlets_of(site: Site, circuit: Circuit | None, room: str) -> PointsInUse:
    """What a round of a circuit, or of a room where no circuit is named, goes through, in the order of the boards."""
    own = {"circuit": circuit} if circuit else {"room": room}
    here = Point.objects.in_use().filter(circuit__board__supply__site=site, kind__in=OUTLETS, **own)
    return here.select_related("circuit__board__supply__site").order_by(*IN_ORDER)


def outlets_of_each(rounds: Sequence[Round]) -> dict[UUID, list[Point]]:
    """By the round's id, all looked up together, with what was read at each since the first of them began."""
    if not rounds:
        return {}
    gone_through = reduce(or_, (Q(circuit=r.circuit_id) if r.circuit_id else _room(r.site, r.room) for r in rounds))
    here = Point.objects.in_use().filter(gone_through, kind__in=OUTLETS).order_by(*IN_ORDER)
    points = list(with_readings_since(here, min(r.begun_at for r in rounds)))
    return {r.id: [p for p in points if _goes_through(p, r.site, r.circuit, r.room)] for r in rounds}


def _room(site: Site, room: str) -> Q:
    return Q(circuit__board__supply__site=site, room=room)


def _goes_through(point: Point, site: Site, circuit: Circuit | None, room: str) -> bool:
    if point.circuit.board.supply.site_id != site.id:
        return False
    return point.circuit_id == circuit.id if circuit else point.room == room


@transaction.atomic
def begin(
    crew: Crew,
    author: Author,
    round_id: UUID,
    site_id: UUID,
    circuit_id: UUID | None,
    room: str,
    tester_id: UUID | None,
) -> Round:
    """Set out on a round of a circuit or of a room. The same id with the same content again changes nothing."""
    site = site_of(crew, site_id)
    circuit = find(crew, Circuit, circuit_id) if circuit_id else None
    tester = tester_of(crew, tester_id) if tester_id else None
    room = room.strip()
    if (circuit is None) == (not room):
        raise Refused(("circuit", "say which circuit, or which room"))
    if circuit is not None and circuit.board.supply.site_id != site.id:
        raise Refused(("circuit", "this circuit is of another site"))
    existing = Round.objects.filter(id=round_id).first()
    if existing is not None:
        if (existing.site, existing.circuit, existing.room, existing.tester) != (site, circuit, room, tester):
            raise Refused(("id", "this id already belongs to another round"), status=409)
        return existing
    if not _outlets_of(site, circuit, room).exists():
        raise Refused(("circuit" if circuit else "room", "there is no outlet there to go round; add its points first"))
    return Round.objects.create(
        id=round_id,
        site=site,
        circuit=circuit,
        room=room,
        tester=tester,
        begun_at=timezone.now(),
        by=person_of(author),
        by_name=name_of(author),
    )


@transaction.atomic
def keep(
    crew: Crew,
    author: Author,
    round_id: UUID,
    event_id: UUID,
    point_id: UUID,
    kind: str,
    reason: str,
    happened: datetime | None = None,
    *,
    tripped: bool | None,
) -> Round:
    """Keep one event. What the watcher saw is a reading of the outlet pressed at, under the event's own id.

    `happened`: when, by the server's clock, where a device kept it until there was a line.
    """
    found = round_of(crew, round_id)
    point = find(crew, Point, point_id)
    if point.kind not in OUTLETS or not _goes_through(point, found.site, found.circuit, found.room):
        raise Refused(("point", "this outlet is not on the round"))
    entry = _entry(kind, reason.strip(), tripped)
    existing = RoundEvent.objects.filter(id=event_id).first()
    if existing is not None:
        same = (existing.round_id, existing.point_id, existing.kind, existing.entry)
        if same != (found.id, point.id, kind, entry):
            raise Refused(("id", "this id already belongs to an event with other content"), status=409)
        return found
    when = happened or timezone.now()
    if kind == RoundEvent.Kind.WATCHED:
        _record_trip(crew, author, found, point, event_id, entry, when)
    RoundEvent.objects.create(
        id=event_id, round=found, point=point, kind=kind, entry=entry, at=when,
        by=person_of(author), by_name=name_of(author),
    )  # fmt: skip
    return round_of(crew, round_id)


def _entry(kind: str, reason: str, tripped: bool | None) -> dict[str, object]:
    if kind not in RoundEvent.Kind.values:
        raise Refused(("kind", f"must be one of {', '.join(RoundEvent.Kind.values)}"))
    if kind == RoundEvent.Kind.SKIPPED and len(reason) < SHORTEST_SKIP_REASON:
        raise Refused(("reason", "say why it is skipped"))
    if kind == RoundEvent.Kind.WATCHED and tripped is None:
        raise Refused(("tripped", "say whether the device tripped"))
    said: dict[str, object] = {"reason": reason} if reason else {}
    return {**said, "tripped": tripped} if kind == RoundEvent.Kind.WATCHED else said


def _record_trip(
    crew: Crew, author: Author, found: Round, point: Point, event_id: UUID, said: dict[str, object], when: datetime
) -> None:
    entry = {"quantity": "trip", "value": said["tripped"]}
    if found.tester is not None and found.tester.entry.get("test_ma"):
        entry["test_ma"] = found.tester.entry["test_ma"]
    if "reason" in said:
        entry["note"] = said["reason"]
    record(crew, author, point.id, event_id, entry, found.tester_id, taken_at=when)
