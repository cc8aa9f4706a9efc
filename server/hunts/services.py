"""Beginning a hunt and recording what is seen on it. Append-only; a retry is the same record, not a second."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.formats import FormatError
from evenprobe.hunting.intake import HAPPENED, HUNTED, MARKS
from evenprobe.hunting.run import BOARD
from hunts.logs import content_of, file_of, stands
from hunts.models import Hunt, HuntEvent
from sites.models import Circuit
from sites.services import find

_UNKNOWN_LENGTH_M = 8.0
"""Of a stretch that nobody measured."""
_LONGEST_TOLD = 400
TOLD = ("also_dead", "done_last", "note")


def hunts_of(crew: Crew) -> QuerySet[Hunt]:
    return (
        Hunt.objects.filter(site__crew=crew)
        .select_related("site", "circuit")
        .prefetch_related("events", "circuit__points")
    )


def hunt_of(crew: Crew, hunt_id: UUID) -> Hunt:
    found = hunts_of(crew).filter(id=hunt_id).first()
    if found is None:
        raise NotFoundHere("hunt")
    return found


@transaction.atomic
def begin(
    crew: Crew,
    author: Author,
    hunt_id: UUID,
    circuit_id: UUID,
    happened: str,
    kind: str,
    between: Sequence[str] | None,
    told: dict[str, str],
) -> Hunt:
    """Set out along a circuit's run. The same id with the same content again changes nothing."""
    circuit = find(crew, Circuit, circuit_id)
    site = circuit.board.supply.site
    if happened not in HAPPENED:
        raise Refused(("happened", f"must be one of {', '.join(HAPPENED)}"))
    if kind not in HAPPENED[happened].hunts or kind not in HUNTED:
        raise Refused(("kind", f"must be one of {', '.join(HAPPENED[happened].hunts)}"))
    between = between or HUNTED[kind].between or ("L", "PE")
    too_long = [key for key, text in told.items() if len(text) > _LONGEST_TOLD]
    if too_long:
        raise Refused((too_long[0], f"is longer than {_LONGEST_TOLD} characters"))
    existing = Hunt.objects.filter(id=hunt_id).first()
    if existing is not None:
        same = (existing.circuit_id, existing.happened, existing.kind, existing.told, existing.run["between"])
        if existing.site.crew_id != crew.id or same != (circuit.id, happened, kind, told, list(between)):
            raise Refused(("id", "this id already belongs to another hunt"), status=409)
        return hunt_of(crew, hunt_id)
    found = Hunt(
        id=hunt_id,
        site=site,
        circuit=circuit,
        kind=kind,
        happened=happened,
        told=told,
        run=_run_of(circuit, between),
        names={str(point.id): point.name for point in circuit.points.all()},
        begun_at=timezone.now(),
        by=person_of(author),
        by_name=name_of(author),
    )
    try:
        file_of(content_of(found, []))
    except FormatError as error:
        raise Refused(*((_of_the_circuit(path), text) for path, text in error.problems)) from None
    found.save(force_insert=True)
    return hunt_of(crew, hunt_id)


def _of_the_circuit(path: str) -> str:
    return "circuit" if path.startswith(("points", "conductor")) else path


def _run_of(circuit: Circuit, between: Sequence[str]) -> dict[str, Any]:
    """The circuit's points in cable order, each after the one before."""
    points, before, at_m = [], BOARD, 0.0
    for point in circuit.points.filter(retired_at=None):
        length = _UNKNOWN_LENGTH_M if point.length_m is None else max(0.0, point.length_m - at_m)
        points.append({"id": str(point.id), "after": before, "length_m": round(length, 2)})
        before, at_m = str(point.id), at_m + length
    conductor = {"conductor": circuit.conductor} if circuit.conductor else {}
    return {"points": points, "between": list(between), **conductor}


@transaction.atomic
def keep(
    crew: Crew,
    author: Author,
    hunt_id: UUID,
    event_id: UUID,
    kind: str,
    entry: dict[str, Any],
    happened: datetime | None = None,
) -> Hunt:
    """Keep one event. `happened`: when, by the server's clock, where a device kept it until there was a line."""
    found = hunt_of(crew, hunt_id)
    if kind not in HuntEvent.Kind.values:
        raise Refused(("kind", f"must be one of {', '.join(HuntEvent.Kind.values)}"))
    existing = HuntEvent.objects.filter(id=event_id).first()
    if existing is not None:
        if (existing.hunt_id, existing.kind, existing.entry) != (found.id, kind, entry):
            raise Refused(("id", "this id already belongs to an event with other content"), status=409)
        return found
    event = HuntEvent(
        id=event_id, hunt=found, kind=kind, entry=entry, at=happened or timezone.now(),
        by=person_of(author), by_name=name_of(author),
    )  # fmt: skip
    _check(found, event)
    event.save(force_insert=True)
    return hunt_of(crew, hunt_id)


def _check(hunt: Hunt, event: HuntEvent) -> None:
    """Raises Refused for what cannot be written down. What contradicts is written down, and said."""
    standing = stands(hunt.events.all())
    entry = event.entry
    if event.kind == HuntEvent.Kind.TAKEN_BACK:
        if entry.get("event") not in {str(e.id) for e in standing} or set(entry) != {"event"}:
            raise Refused(("entry.event", "is nothing that stands in this hunt"))
        return
    if event.kind == HuntEvent.Kind.MARKED:
        _check_mark(hunt, entry)
    if event.kind in (HuntEvent.Kind.MENDED, HuntEvent.Kind.CLOSED):
        note = entry.get("note", "")
        if set(entry) - {"note"} or not isinstance(note, str) or len(note) > _LONGEST_TOLD:
            raise Refused(("entry.note", f"must be text of up to {_LONGEST_TOLD} characters, and nothing beside it"))
        return
    seen = [e for e in standing if e.kind == HuntEvent.Kind.SEEN]
    try:
        file_of(content_of(hunt, [*standing, event]))
    except FormatError as error:
        here = f"seen[{len(seen)}]"
        raise Refused(*((path.replace(here, "entry", 1), text) for path, text in error.problems)) from None


def _check_mark(hunt: Hunt, entry: dict[str, Any]) -> None:
    if entry.get("point") not in {point["id"] for point in hunt.run["points"]}:
        raise Refused(("entry.point", "is no point of this run"))
    for key in ("box", "cable"):
        if key in entry and entry[key] not in MARKS:
            raise Refused((f"entry.{key}", f"must be one of {', '.join(MARKS)}"))
    if not isinstance(entry.get("hidden", False), bool):
        raise Refused(("entry.hidden", "must be true or false"))
    unknown = set(entry) - {"point", "box", "cable", "hidden"}
    if unknown:
        raise Refused((f"entry.{min(unknown)}", "unknown key"))
