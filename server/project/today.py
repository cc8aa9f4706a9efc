"""Today: what to do next, in order. Proofs of death first, then rounds begun, points that are not safe, then kit."""

from datetime import timedelta
from uuid import UUID

from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema

from crews.models import Crew
from crews.services import crew_of
from evenprobe.interpretation import WORST_FIRST, Verdict
from evenprobe.testers.fitness import attention
from kit.services import in_hands
from proofs.api import proof_lines
from proofs.logs import HISTORY
from proofs.shapes import ProofLine
from rounds.models import Round
from rounds.services import rounds_of
from rounds.shapes import RoundLine
from rounds.showing import line_of
from sites.models import Point
from work.interpretations import interpretation_of
from work.surveys import PointSurvey

router = Router(tags=["today"])

NOT_SAFE = tuple(str(v) for v in WORST_FIRST if v not in (Verdict.UNTESTED, Verdict.SAFE, Verdict.CORRECT))
"""Verdicts that ask for something to be done."""


IN_HAND = timedelta(days=7)
"""How long a round that was begun is a thing of today."""


class PointToDo(Schema):
    id: UUID
    name: str
    circuit: str
    site: str
    verdict: str
    summary: str


class KitToDo(Schema):
    id: UUID
    label: str
    kind: str
    attention: list[str]


class Today(Schema):
    proofs: list[ProofLine]
    rounds: list[RoundLine]
    points: list[PointToDo]
    kit: list[KitToDo]


@router.get("/today", response=Today)
def today(request: HttpRequest) -> Today:
    crew = crew_of(request)
    return Today(
        proofs=[line for line in proof_lines(crew) if line.state not in ("closed", HISTORY)],
        rounds=[line for found in _rounds_in_hand(crew) if (line := line_of(found)).left],
        points=_points(crew),
        kit=_kit(crew),
    )


def _rounds_in_hand(crew: Crew) -> QuerySet[Round]:
    """What was begun longer ago is found among the rounds."""
    return rounds_of(crew).filter(begun_at__gte=timezone.now() - IN_HAND)


def _points(crew: Crew) -> list[PointToDo]:
    found = []
    here = Point.objects.filter(circuit__board__supply__site__crew=crew)
    for point in here.select_related("circuit__board__supply__site"):
        site = point.circuit.board.supply.site
        answer = interpretation_of(PointSurvey(point))
        if answer["verdict"] in NOT_SAFE:
            found.append(
                PointToDo(
                    id=point.id,
                    name=point.name,
                    circuit=point.circuit.name,
                    site=site.name,
                    verdict=answer["verdict"],
                    summary=answer["summary"],
                )
            )
    return sorted(found, key=lambda p: NOT_SAFE.index(p.verdict))


def _kit(crew: Crew) -> list[KitToDo]:
    lines = []
    for tester, entry in in_hands(crew, timezone.now()):
        found = attention(entry.held(), timezone.localdate())
        if found:
            texts = [f.text for f in found]
            lines.append(KitToDo(id=tester.id, label=str(tester), kind=str(entry.kind), attention=texts))
    return sorted(lines, key=lambda line: line.label)
