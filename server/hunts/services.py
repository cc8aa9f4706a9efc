"""Beginning a hunt and recording what is seen on it. Append-only; a retry is the same record, not a second."""

from dataclasses import dataclass, field
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
from hunts.layouts import Laid, laid_out
from hunts.logs import content_of, file_of, stands
from hunts.models import Hunt, HuntEvent
from hunts.write_back import written_back
from kit.services import tester_of
from photos.services import photo_of
from sites.models import Board, Circuit
from sites.services import find

_LONGEST_TOLD = 400
TOLD = ("also_dead", "done_last", "note")
_NOTED = (HuntEvent.Kind.MENDED, HuntEvent.Kind.CLOSED, HuntEvent.Kind.SCHEDULED)
"""Events that may have a note and nothing beside it."""


@dataclass(frozen=True)
class Begun:
    """With what a hunt is begun: on a circuit, or over a board; what happened, and what is asked besides."""

    circuit: UUID | None
    board: UUID | None
    happened: str
    kind: str
    told: dict[str, str]
    asked: dict[str, Any] = field(default_factory=dict)


def hunts_of(crew: Crew) -> QuerySet[Hunt]:
    return (
        Hunt.objects.filter(site__crew=crew)
        .select_related("site", "circuit", "board")
        .prefetch_related("events", "board__circuits__points")
    )


def hunt_of(crew: Crew, hunt_id: UUID) -> Hunt:
    found = hunts_of(crew).filter(id=hunt_id).first()
    if found is None:
        raise NotFoundHere("hunt")
    return found


@transaction.atomic
def begin(crew: Crew, author: Author, hunt_id: UUID, begun: Begun) -> Hunt:
    """Set out. The same id with the same content again changes nothing."""
    _check_begun(begun)
    circuit = find(crew, Circuit, begun.circuit) if begun.circuit else None
    board = circuit.board if circuit else find(crew, Board, begun.board)  # type: ignore[arg-type]
    existing = Hunt.objects.filter(id=hunt_id).first()
    if existing is not None:
        was = Begun(
            existing.circuit_id, None if existing.circuit_id else existing.board_id,
            existing.happened, existing.kind, existing.told, existing.asked,
        )  # fmt: skip
        if existing.site.crew_id != crew.id or was != begun:
            raise Refused(("id", "this id already belongs to another hunt"), status=409)
        return hunt_of(crew, hunt_id)
    begin_along(laid_out(begun.kind, board, circuit, begun.asked), author, hunt_id, begun, board, circuit)
    if circuit is not None and begun.happened not in circuit.noticed:
        circuit.noticed = sorted([*circuit.noticed, begun.happened])
        circuit.save()
    return hunt_of(crew, hunt_id)


def begin_along(laid: Laid, author: Author, hunt_id: UUID, begun: Begun, board: Board, circuit: Circuit | None) -> None:
    """Set out along what is laid out already. Raises Refused where it is no circuit file."""
    found = Hunt(
        id=hunt_id,
        site=board.supply.site,
        circuit=circuit,
        board=board,
        kind=begun.kind,
        happened=begun.happened,
        told=begun.told,
        asked=begun.asked,
        layout=laid.content,
        names=laid.names,
        begun_at=timezone.now(),
        by=person_of(author),
        by_name=name_of(author),
    )
    try:
        file_of(content_of(found, []))
    except FormatError as error:
        raise Refused(*((_of_the_form(begun.kind, path), text) for path, text in error.problems)) from None
    found.save(force_insert=True)


def _check_begun(begun: Begun) -> None:
    if begun.happened not in HAPPENED:
        raise Refused(("happened", f"must be one of {', '.join(HAPPENED)}"))
    if begun.kind not in HAPPENED[begun.happened].hunts or begun.kind not in HUNTED:
        raise Refused(("kind", f"must be one of {', '.join(HAPPENED[begun.happened].hunts)}"))
    needed = "board" if HUNTED[begun.kind].along == "board" else "circuit"
    if (begun.board is None) is (needed == "board") or (begun.circuit is None) is (needed == "circuit"):
        raise Refused((needed, f"this is hunted on a {needed}: say which, and nothing beside it"))
    too_long = [key for key, text in begun.told.items() if len(text) > _LONGEST_TOLD]
    if too_long:
        raise Refused((too_long[0], f"is longer than {_LONGEST_TOLD} characters"))


def _of_the_form(kind: str, path: str) -> str:
    """Which entry of the form a problem of the circuit file comes from."""
    along = HUNTED[kind].along
    if along == "chain":
        return f"chain.{path}"
    return "circuit" if along != "board" and path.startswith(("points", "conductor", "rated_a", "residual")) else path


@transaction.atomic
def keep(
    crew: Crew,
    author: Author,
    hunt_id: UUID,
    event_id: UUID,
    kind: str,
    entry: dict[str, Any],
    happened: datetime | None = None,
    tester_id: UUID | None = None,
) -> Hunt:
    """Keep one event, and what was measured of a point as readings of it.

    `happened`: when, by the server's clock, where a device kept it until there was a line.
    """
    found = hunt_of(crew, hunt_id)
    if kind not in HuntEvent.Kind.values:
        raise Refused(("kind", f"must be one of {', '.join(HuntEvent.Kind.values)}"))
    existing = HuntEvent.objects.filter(id=event_id).first()
    if existing is not None:
        if (existing.hunt_id, existing.kind, existing.entry, existing.tester_id) != (found.id, kind, entry, tester_id):
            raise Refused(("id", "this id already belongs to an event with other content"), status=409)
        return found
    event = HuntEvent(
        id=event_id, hunt=found, kind=kind, entry=entry, at=happened or timezone.now(),
        by=person_of(author), by_name=name_of(author), tester=tester_of(crew, tester_id) if tester_id else None,
    )  # fmt: skip
    _check(found, event)
    event.save(force_insert=True)
    written_back(crew, author, found, [*found.events.all(), event])
    return hunt_of(crew, hunt_id)


def _check(hunt: Hunt, event: HuntEvent) -> None:
    """Raises Refused for what cannot be written down. What contradicts is written down, and said."""
    standing = stands(hunt.events.all())
    entry = event.entry
    if event.kind == HuntEvent.Kind.TAKEN_BACK:
        can_be = {str(e.id) for e in standing if e.kind != HuntEvent.Kind.SCHEDULED}
        if entry.get("event") not in can_be or set(entry) != {"event"}:
            raise Refused(("entry.event", "is nothing that stands in this hunt and can be taken back"))
        return
    if event.kind == HuntEvent.Kind.SCHEDULED and HUNTED[hunt.kind].along != "board":
        raise Refused(("kind", "a schedule is filled from a board that was mapped"))
    if event.kind == HuntEvent.Kind.MARKED:
        _check_mark(hunt, entry)
    if event.kind in _NOTED:
        note = entry.get("note", "")
        if set(entry) - {"note"} or not isinstance(note, str) or len(note) > _LONGEST_TOLD:
            raise Refused(("entry.note", f"must be text of up to {_LONGEST_TOLD} characters, and nothing beside it"))
        return
    if entry.get("photo") is not None:
        _check_photo(hunt, entry["photo"])
    seen = [e for e in standing if e.kind == HuntEvent.Kind.SEEN]
    try:
        file_of(content_of(hunt, [*standing, event]))
    except FormatError as error:
        here = f"seen[{len(seen)}]"
        raise Refused(*((path.replace(here, "entry", 1), text) for path, text in error.problems)) from None


def _check_photo(hunt: Hunt, name: object) -> None:
    try:
        photo_of(hunt.site.crew, UUID(str(name)))
    except (ValueError, NotFoundHere):
        raise Refused(("entry.photo", "no such picture in your crew")) from None


def _check_mark(hunt: Hunt, entry: dict[str, Any]) -> None:
    if HUNTED[hunt.kind].along != "run":
        raise Refused(("kind", "marks are of boxes along a run"))
    if entry.get("point") not in {point["id"] for point in hunt.layout["points"]}:
        raise Refused(("entry.point", "is no point of this run"))
    for key in ("box", "cable"):
        if key in entry and entry[key] not in MARKS:
            raise Refused((f"entry.{key}", f"must be one of {', '.join(MARKS)}"))
    if not isinstance(entry.get("hidden", False), bool):
        raise Refused(("entry.hidden", "must be true or false"))
    unknown = set(entry) - {"point", "box", "cable", "hidden"}
    if unknown:
        raise Refused((f"entry.{min(unknown)}", "unknown key"))
