"""How far each step of a visit is: what the record shows since it began, not a tick."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from django.utils import timezone

from evenprobe.deadtests.energising import in_the_way
from evenprobe.interpretation import Verdict
from evenprobe.planning import Work
from proofs.logs import was_dead_since
from proofs.models import Proof
from readings.standings import verdict_of
from sites.models import Point
from visits.on_site import CircuitRecord

LEFT, UNDER_WAY, DONE = "left", "under-way", "done"


@dataclass(frozen=True)
class Progress:
    """`state`: left, under-way or done. `said`: what is missing. `place`, `of`: where it goes on."""

    state: str
    said: str
    place: str
    of: UUID


def progress(work: Work, record: CircuitRecord, since: datetime | None, until: datetime | None) -> Progress:
    """`since`, `until`: of the visit; before it has begun nothing is done."""
    begun = since or timezone.now()
    return _OF_WORK[work](record, begun, until or timezone.now())


def _isolated(record: CircuitRecord, since: datetime, until: datetime) -> Progress:
    for proof in record.proofs:
        if was_dead_since(proof, since, until):
            return Progress(DONE, "", "proof", proof.id)
    running = [p for p in record.proofs if since <= p.begun_at <= until and not _closed(p)]
    if running:
        return Progress(UNDER_WAY, "begun, not proved dead", "proof", running[0].id)
    return Progress(LEFT, "", "new-proof", record.circuit.id)


def _closed(proof: Proof) -> bool:
    return any(event.type == "closed" for event in proof.events.all())


def _tested_dead(record: CircuitRecord, since: datetime, until: datetime) -> Progress:
    for sheet in record.sheets:
        if not since <= sheet.sheet.begun_at <= until:
            continue
        left = () if sheet.of("energised") else in_the_way(sheet.record)
        if not left:
            return Progress(DONE, "", "sheet", sheet.sheet.id)
        return Progress(UNDER_WAY, f"{len(left)} outstanding: {left[0].text}", "sheet", sheet.sheet.id)
    return Progress(LEFT, "", "new-sheet", record.circuit.id)


def _tested_live(record: CircuitRecord, since: datetime, until: datetime) -> Progress:
    points = record.points
    measured = [point for point in points if _measured(point, record, since, until)]
    fine = [point for point in measured if Verdict(verdict_of(point.standing)).is_safe]
    waiting = next((point for point in points if point not in fine), None)
    if waiting is None:
        return Progress(DONE, "", "point", points[0].id)
    if not measured:
        return Progress(LEFT, "", "point", waiting.id)
    unsafe = len(measured) - len(fine)
    said = [f"{len(measured)} of {len(points)} measured", f"{unsafe} not safe" if unsafe else ""]
    return Progress(UNDER_WAY, ", ".join(filter(None, said)), "point", waiting.id)


def _measured(point: Point, record: CircuitRecord, since: datetime, until: datetime) -> bool:
    last = point.standing.last_read
    if last is not None and since <= last <= until:
        return True
    return any(t.point == point.id and t.counts and since <= t.at <= until for t in record.taken)


_OF_WORK: dict[Work, Callable[[CircuitRecord, datetime, datetime], Progress]] = {
    Work.ISOLATE: _isolated,
    Work.DEAD_TESTS: _tested_dead,
    Work.LIVE_TESTS: _tested_live,
}
