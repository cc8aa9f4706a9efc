"""What leans on a tester: every reading, test and proof since a time, and what each comes to without it.

Nothing is changed by asking: a copy of the record is looked at once as if the tester were good and once as if not.
"""

from collections.abc import Iterable, Iterator
from datetime import datetime

from django.db.models import Q, QuerySet

from evenprobe.interpretation import WORST_FIRST, Verdict
from kit.models import Tester
from overviews.shapes import LeaningOut, LeaningPoint, LeaningProof
from proofs.logs import state_of
from proofs.models import Proof, ProofEvent
from readings.interpretations import interpretation_of
from readings.models import Reading
from readings.point_view import PointView, with_record
from sheets.models import SheetEntry
from sites.models import Point


def leaning_on(tester: Tester, since: datetime, now: datetime) -> LeaningOut:
    """Points whose verdict leans on it first, the worst of them first."""
    took = Q(readings__tester=tester, readings__taken_at__gte=since)
    tested = Q(circuit__sheets__entries__tester=tester, circuit__sheets__entries__at__gte=since)
    points = Point.objects.in_use().filter(took | tested).distinct()
    good = {view.point.id: interpretation_of(view) for view in _views(points, tester, None)}
    leaning = []
    for view in _views(points, tester, since):
        point, before, after = view.point, good[view.point.id], interpretation_of(view)
        rows = [row for row in view.rows if row.tester_id == tester.id and row.taken_at >= since and row.entry]
        leaning.append(
            LeaningPoint(
                id=point.id,
                name=point.name,
                circuit=point.circuit.name,
                site=view.site.name,
                readings=len(rows),
                dead_tests=sum(t.tester == tester and t.taken_at >= since for t in view.dead_tests),
                verdict=before.verdict,
                without=after.verdict,
                leans=(before.verdict, before.insulation.state, before.protection.state)
                != (after.verdict, after.insulation.state, after.protection.state),
            )
        )
    return LeaningOut(
        since=since,
        points=sorted((one for one in leaning if one.readings or one.dead_tests or one.leans), key=_worst_first),
        proofs=list(_proofs(tester, since, now)),
    )


def _worst_first(one: LeaningPoint) -> tuple[bool, int]:
    return not one.leans, -WORST_FIRST.index(Verdict(one.verdict))


def _views(points: QuerySet[Point], tester: Tester, suspect_from: datetime | None) -> Iterator[PointView]:
    """The points looked up anew, with the tester suspect since a time, or never."""
    for point in with_record(points.all()):
        circuit = point.circuit
        proofs = [*circuit.proofs.all(), *(s.proof for s in circuit.sheets.all() if s.proof)]
        _suspect(point.readings.all(), tester, suspect_from)
        for sheet in circuit.sheets.all():
            _suspect(sheet.entries.all(), tester, suspect_from)
        for proof in proofs:
            _suspect(proof.events.all(), tester, suspect_from)
        yield PointView(point)


def _suspect(rows: Iterable[Reading | SheetEntry | ProofEvent], tester: Tester, since: datetime | None) -> None:
    """On rows that were looked up for this and are never saved."""
    for row in rows:
        if row.tester is not None and row.tester == tester:
            row.tester.suspect_from, row.tester.fault = since, tester.fault or "suspect"


def _proofs(tester: Tester, since: datetime, now: datetime) -> Iterator[LeaningProof]:
    own = Proof.objects.filter(events__tester=tester, events__at__gte=since, brought_at=None).distinct()
    for proof in own.select_related("site").prefetch_related("events"):
        states = []
        for suspect_from in (None, since):
            _suspect(proof.events.all(), tester, suspect_from)
            states.append(state_of(proof, now).state)
        yield LeaningProof(
            id=proof.id, name=proof.name, site=proof.site.name, begun_at=proof.begun_at,
            state=states[0], without=states[1],
        )  # fmt: skip
