"""Today: what to do next, in order. Visits in hand, proofs, hunts and rounds begun, points not safe, then kit."""

from datetime import timedelta
from typing import Any
from uuid import UUID

from django.db.models import Case, Exists, OuterRef, Q, When
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema

from base.failures import each_shown
from base.unchanged import goes_by_the_clock, part_of_an_answer, same_until_changed
from crews.models import Crew
from crews.services import crew_of
from evenprobe.formats import InstrumentEntry
from evenprobe.interpretation import WORST_FIRST, Verdict
from evenprobe.testers.fitness import attention
from hunts.logs import CLOSED
from hunts.presenters.lines import lines_of as hunt_lines
from hunts.services import hunts_of
from hunts.shapes import HuntLine
from kit.hands import Hands
from kit.models import Tester
from kit.services import testers_of
from proofs.api import lines_of as lines_of_proofs
from proofs.models import Proof
from proofs.shapes import ProofLine
from readings.models import Reading
from readings.settling import settled
from readings.standings import not_shown, old_ones, short_of
from rounds.presenters import lines_of
from rounds.services import rounds_of
from rounds.shapes import RoundLine
from sites.models import SITE_BY_SITE, Point
from sites.shapes import InShort
from visits.presenters import lines_of as lines_of_visits
from visits.services import stands, visits_of
from visits.shapes import VisitLine

router = Router(tags=["today"])

_NOT_SAFE = tuple(str(v) for v in WORST_FIRST if v is not Verdict.UNTESTED and not v.is_safe)
"""Verdicts that ask for something to be done."""

_WORST_FIRST = Case(*(When(standing__verdict=v, then=n) for n, v in enumerate(_NOT_SAFE)), default=-1)
"""One that cannot be shown stands before all."""
_POINTS_SHOWN = 50

_IN_HAND = timedelta(days=7)
"""How long a round that was begun is a thing of today."""


class PointToDo(InShort):
    id: UUID
    name: str
    circuit: str
    site: str


class KitToDo(Schema):
    id: UUID
    label: str
    kind: str
    attention: list[str]


class Today(Schema):
    """`sites`, `testers`, `measured`: how many there are at all; where there are none nothing was looked at.

    `points`: the worst of all the `points_not_safe`. `points_old`: how many are being worked out again.
    """

    sites: int
    testers: int
    measured: int
    visits: list[VisitLine]
    proofs: list[ProofLine]
    hunts: list[HuntLine]
    rounds: list[RoundLine]
    points: list[PointToDo]
    points_not_safe: int
    points_old: int
    kit: list[KitToDo]


@router.get("/today", response=Today)
@same_until_changed(settled)
def today(request: HttpRequest) -> Today:
    crew = crew_of(request)
    here = Point.objects.in_use().filter(circuit__board__supply__site__crew=crew)
    points, not_safe = _points(crew)
    proofs = lines_of_proofs(Proof.objects.filter(site__crew=crew, brought_at=None).exclude(events__type="closed"))
    if any(line.expires_at for line in proofs):
        goes_by_the_clock(request)
    return Today(
        sites=crew.sites.filter(retired_at=None, loose=False).count(),
        testers=testers_of(crew).count(),
        measured=here.filter(Exists(Reading.objects.filter(point=OuterRef("pk")))).count(),
        visits=_visits(crew),
        proofs=proofs,
        hunts=part_of_an_answer(("hunts", crew.pk), lambda: _hunts(crew)),
        rounds=part_of_an_answer(("rounds", crew.pk), lambda: _rounds(crew)),
        points=points,
        points_not_safe=not_safe,
        points_old=old_ones().filter(point__circuit__board__supply__site__crew=crew).count(),
        kit=_kit(crew),
    )


def _visits(crew: Crew) -> list[VisitLine]:
    """Those begun, then those planned, the soonest first."""
    lines = lines_of_visits(visit for visit in visits_of(crew) if stands(visit) != "closed")
    return sorted(lines, key=lambda line: (line.state != "begun", line.planned_for))


def _hunts(crew: Crew) -> list[HuntLine]:
    return [line for line in hunt_lines(hunts_of(crew)) if line.state != CLOSED]


def _rounds(crew: Crew) -> list[RoundLine]:
    """What was begun longer ago is found among the rounds."""
    begun = rounds_of(crew).filter(begun_at__gte=timezone.now() - _IN_HAND)
    return [line for line in lines_of(begun) if _in_hand(line)]


def _in_hand(line: RoundLine) -> bool:
    """Something is left to do, or to be seen to: its outlets are gone, or it cannot be shown."""
    return bool(line.left or line.unshown or not line.outlets)


def _points(crew: Crew) -> tuple[list[PointToDo], int]:
    """The worst of the points that are not safe, and how many there are."""
    wanted = Q(standing__verdict__in=_NOT_SAFE) | ~Q(standing__unshown="")
    found = Point.objects.in_use().filter(wanted, circuit__board__supply__site__crew=crew)
    worst_first = found.order_by(_WORST_FIRST, *SITE_BY_SITE).select_related("standing", "circuit__board__supply__site")
    shown = each_shown(worst_first[:_POINTS_SHOWN], lambda p: _to_do(p, short_of(p.standing)), _unshown_point)
    return shown, found.count()


def _unshown_point(point: Point, why: str) -> PointToDo:
    return _to_do(point, not_shown(why))


def _to_do(point: Point, said: dict[str, Any]) -> PointToDo:
    circuit = point.circuit
    return PointToDo(id=point.id, name=point.name, circuit=circuit.name, site=circuit.board.supply.site.name, **said)


def _kit(crew: Crew) -> list[KitToDo]:
    now = timezone.now()
    hands = Hands(crew, now)
    lines = each_shown(
        hands.testers, lambda t: _tester(t, hands.holding(t, now)), lambda t, why: _attention(t, "", [why])
    )
    return sorted((line for line in lines if line.attention), key=lambda line: line.label)


def _tester(tester: Tester, entry: InstrumentEntry) -> KitToDo:
    return _attention(tester, str(entry.kind), [f.text for f in attention(entry.held(), timezone.localdate())])


def _attention(tester: Tester, kind: str, texts: list[str]) -> KitToDo:
    return KitToDo(id=tester.id, label=str(tester), kind=kind, attention=texts)
