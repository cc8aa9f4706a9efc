"""What is open at a site, whoever left it so: isolated, locked, apart, tripped. It stays listed until it is closed."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from django.utils import timezone

from evenprobe.formats.report_words import PROOFS
from evenprobe.isolation import State
from hunts.logs import CLOSED, stands
from hunts.models import Hunt, HuntEvent
from proofs.logs import state_of
from proofs.models import Proof
from rounds.models import Round, RoundEvent
from sheets.records import SheetView, locks_of
from visits.models import Visit, VisitEvent
from visits.on_site import SiteRecord


@dataclass(frozen=True)
class StillOpen:
    """`place`, `of`: where it is closed, and what of. `event`: what is put right there."""

    text: str
    since: datetime
    by: str
    place: str
    of: UUID
    event: UUID | None = None


def left_by(visit: Visit) -> list[StillOpen]:
    """What was said to be left open on one visit, and was not put right since."""
    return list(_of_visit(visit))


def still_open(record: SiteRecord, visits: Iterable[Visit]) -> list[StillOpen]:
    """At the site now, the oldest first."""
    found = [
        *(one for proof in record.proofs for one in _of_proof(proof)),
        *(one for sheet in record.apart for one in _of_sheet(sheet)),
        *(one for hunt in record.hunts for one in _of_hunt(hunt)),
        *(one for round_ in record.rounds for one in _of_round(round_)),
        *(one for visit in visits for one in _of_visit(visit)),
    ]
    return sorted(found, key=lambda one: one.since)


def _of_proof(proof: Proof) -> Iterator[StillOpen]:
    state = state_of(proof, timezone.now()).state
    if state == "closed":
        return
    on = [lock.name for lock in locks_of(proof).values() if lock.taken_by is None]
    locks = f"; locks on: {', '.join(on)}" if on else ""
    if not proof.events.all() and not on:
        return
    yield StillOpen(
        f"{proof.name}: isolation is {PROOFS[State(state)]}{locks}", proof.begun_at, proof.by_name, "proof", proof.id
    )


def _of_sheet(sheet: SheetView) -> Iterator[StillOpen]:
    loads = sheet.of("loads")
    if not loads or sheet.of("energised"):
        return
    last = loads[-1]
    apart = [
        words
        for said, words in (("disconnected", "loads are out"), ("lifted", "the neutral is off at the board"))
        if said in (last.entry["loads"], last.entry["neutral"])
    ]
    if apart:
        text = f"{sheet.sheet.circuit.name}: {' and '.join(apart)}"
        yield StillOpen(text, last.at, last.by_name, "sheet", sheet.sheet.id)


def _of_hunt(hunt: Hunt) -> Iterator[StillOpen]:
    standing = stands(hunt.events.all())
    if any(event.kind == CLOSED for event in standing):
        return
    opened = {e.entry["at"] for e in standing if e.kind == HuntEvent.Kind.SEEN and "at" in e.entry} - {"board"}
    if opened:
        boxes = f"{len(opened)} {'box was' if len(opened) == 1 else 'boxes were'} looked into"
        yield StillOpen(f"{hunt}: {boxes} on a hunt that is not closed", hunt.begun_at, hunt.by_name, "hunt", hunt.id)


def _of_round(one: Round) -> Iterator[StillOpen]:
    pressed = [e for e in one.events.all() if e.kind != RoundEvent.Kind.SKIPPED]
    if pressed and pressed[-1].kind == RoundEvent.Kind.WATCHED and pressed[-1].entry["tripped"]:
        last = pressed[-1]
        yield StillOpen(
            f"{one}: the device tripped at {last.point} and is not reset", last.at, last.by_name, "round", one.id
        )


def _of_visit(visit: Visit) -> Iterator[StillOpen]:
    events = list(visit.events.all())
    right = {e.entry["event"] for e in events if e.kind == VisitEvent.Kind.PUT_RIGHT}
    for event in events:
        if event.kind == VisitEvent.Kind.LEFT_OPEN and str(event.id) not in right:
            yield StillOpen(event.entry["what"], event.at, event.by_name, "visit", visit.id, event.id)
