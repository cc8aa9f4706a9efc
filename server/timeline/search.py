"""Whatever has a name, found by it: places, testers, labels, people, lock numbers, days."""

import re
from collections.abc import Callable, Iterator
from datetime import date
from functools import reduce
from operator import and_, or_
from typing import Any
from urllib.parse import urlencode
from uuid import UUID

from django.db.models import Q, QuerySet
from ninja import Schema

from crews.models import Crew
from kit.models import Tester
from proofs.models import Proof, ProofEvent
from signoffs.models import SignOff
from sites.models import Board, Circuit, Point, Site
from visits.models import Visit

_MOST = 8
"""Of each sort."""
_LONGEST = 120
_DAY = re.compile(r"\b(\d{4})-(\d{2})-(\d{2})\b")


class FoundOut(Schema):
    """`place`, `of`: where it is shown; a person and a day are shown on the line of time, by `query`."""

    place: str
    of: UUID | None
    name: str
    what: str
    query: str = ""


def search(crew: Crew, typed: str) -> list[FoundOut]:
    """All in which every word typed stands, places first."""
    words = typed[:_LONGEST].split()
    if not words:
        return []
    return [one for look in _LOOKS for one in look(crew, words)]


def _all_of(words: list[str], *columns: str) -> Q:
    """Every word in one column or another."""
    each = (reduce(or_, (Q(**{f"{column}__icontains": word}) for column in columns)) for word in words)
    return reduce(and_, each)


def _rows(rows: QuerySet[Any], words: list[str], *columns: str) -> QuerySet[Any]:
    return rows.filter(_all_of(words, *columns))[:_MOST]


def _places(crew: Crew, words: list[str]) -> Iterator[FoundOut]:
    site = "circuit__board__supply__site"
    for one in _rows(Site.objects.filter(crew=crew), words, "name"):
        yield FoundOut(place="site", of=one.id, name=one.name, what="Site")
    for board in _rows(Board.objects.filter(supply__site__crew=crew).select_related("supply__site"), words, "name"):
        yield FoundOut(place="site", of=board.supply.site_id, name=board.name, what=f"Board, {board.supply.site.name}")
    circuits = Circuit.objects.filter(board__supply__site__crew=crew).select_related("board__supply__site")
    for circuit in _rows(circuits, words, "name", "board__name"):
        what = f"{circuit.board.name}, {circuit.board.supply.site.name}"
        yield FoundOut(place="circuit", of=circuit.id, name=circuit.name, what=what)
    points = Point.objects.filter(**{f"{site}__crew": crew}).select_related(site)
    for point in _rows(points, words, "name", "room", "protected_by", "circuit__name"):
        what = ", ".join(filter(None, (point.room, point.circuit.name, point.circuit.board.supply.site.name)))
        yield FoundOut(place="point", of=point.id, name=point.name, what=what)


def _testers(crew: Crew, words: list[str]) -> Iterator[FoundOut]:
    for tester in _rows(Tester.objects.filter(crew=crew), words, "entry__label", "entry__kind"):
        yield FoundOut(place="tester", of=tester.id, name=str(tester), what="Tester")


def _work(crew: Crew, words: list[str]) -> Iterator[FoundOut]:
    for proof in _rows(Proof.objects.filter(site__crew=crew).select_related("site"), words, "name", "site__name"):
        yield FoundOut(place="proof", of=proof.id, name=proof.name, what=f"Proof of isolation, {proof.site.name}")
    for visit in _rows(Visit.objects.filter(site__crew=crew).select_related("site"), words, "why", "site__name"):
        yield FoundOut(
            place="visit", of=visit.id, name=visit.why, what=f"Visit, {visit.site.name}, {visit.planned_for}"
        )
    for signed in _rows(SignOff.objects.filter(crew=crew).defer("content"), words, "name", "link_sha256"):
        yield FoundOut(place="sign-off", of=signed.id, name=signed.name, what=f"Sign-off {signed.number}")


def _locks(crew: Crew, words: list[str]) -> Iterator[FoundOut]:
    events = ProofEvent.objects.filter(proof__site__crew=crew, type="locked").select_related("proof__site")
    for event in _rows(events.order_by("-at"), words, "entry__lock"):
        what = f"Lock, {event.proof.name}, {event.proof.site.name}, {event.at:%Y-%m-%d}"
        yield FoundOut(place="proof", of=event.proof_id, name=event.entry["lock"], what=what)


def _people(crew: Crew, words: list[str]) -> Iterator[FoundOut]:
    """As they stand on the record, whether or not they have left."""
    names = ProofEvent.objects.filter(proof__site__crew=crew).values_list("by_name", flat=True)
    own = [user.get_full_name() or user.username for user in (m.user for m in crew.memberships.select_related("user"))]
    for name in sorted({*own, *names.filter(_all_of(words, "by_name")).order_by("by_name").distinct()[:_MOST]}):
        if all(word.casefold() in name.casefold() for word in words):
            yield FoundOut(
                place="crew", of=None, name=name, what="Everything by this person", query=urlencode({"by": name})
            )


def _days(_: Crew, words: list[str]) -> Iterator[FoundOut]:
    for year, month, day in _DAY.findall(" ".join(words)):
        try:
            on = date(int(year), int(month), int(day))
        except ValueError:
            continue
        yield FoundOut(
            place="crew",
            of=None,
            name=f"{on}",
            what="Everything on this day",
            query=urlencode({"since": on, "until": on}),
        )


_LOOKS: tuple[Callable[[Crew, list[str]], Iterator[FoundOut]], ...] = (
    _places, _testers, _work, _locks, _people, _days,
)  # fmt: skip
