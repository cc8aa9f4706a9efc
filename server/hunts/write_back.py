"""What a hunt writes down elsewhere once it is told: which points a protective outlet protects, a board's schedule."""

from collections.abc import Sequence
from uuid import UUID, uuid5

from crews.models import Crew
from crews.services import Author
from evenprobe.formats import CircuitFile
from evenprobe.formats.circuits import MapFile, ProtectiveOutletFile
from evenprobe.wiring import PointKind
from hunts.logs import CLOSED, content_of, file_of, stands, state_of
from hunts.models import Hunt, HuntEvent
from readings.services import record, withdraw
from sites.models import Circuit, Point
from sites.services import put_circuit, put_point

_DEAD, _LABEL = "dead", "label"
_CONTACTS = ["L", "N", "PE"]
"""Of an outlet that nobody told more of than its name."""


def written_back(crew: Crew, author: Author, hunt: Hunt, events: Sequence[HuntEvent]) -> None:
    """Within the transaction of the last of the hunt's events."""
    event = events[-1]
    match event.kind, event.entry:
        case HuntEvent.Kind.SEEN, {"volts": _, "at": _}:
            _readings(crew, author, event)
        case HuntEvent.Kind.TAKEN_BACK, {"event": name}:
            _without(crew, author, hunt, next(e for e in events if str(e.id) == name), event)
        case HuntEvent.Kind.SEEN, {"step": step} if step == _LABEL:
            _label(hunt, file_of(content_of(hunt, stands(events))))
        case HuntEvent.Kind.SCHEDULED, _:
            _fill_schedule(crew, hunt, file_of(content_of(hunt, stands(events))))
    if any(each.kind == HuntEvent.Kind.CLOSED for each in events):
        _note_on_the_circuit(hunt.circuit)


def _readings(crew: Crew, author: Author, event: HuntEvent) -> None:
    """Volts at a point are readings of it, so that the Bench knows them; at a board they are of no point."""
    entry = event.entry
    point = _point_of(event)
    if point is None:
        return
    where = "load_here_a" if entry.get("load_at") == entry["at"] else "load_elsewhere_a"
    load = {where: entry["load_a"]} if entry.get("load_a") else {}
    for pair, shown in entry["volts"].items():
        ends = pair.split("-")
        if shown is None or not set(ends) <= set(point.terminals):
            continue
        measured = {"quantity": "voltage", "mode": "ac", "from": ends[0], "to": ends[1], "unit": "V", "value": shown}
        record(crew, author, point.id, uuid5(event.id, pair), {**measured, **load}, event.tester_id, None, event.at)


def _without(crew: Crew, author: Author, hunt: Hunt, taken_back: HuntEvent, by: HuntEvent) -> None:
    """Readings of what was taken back are withdrawn, but those that were corrected at the Bench; labels come off."""
    if taken_back.entry.get("step") == _LABEL:
        Point.objects.filter(circuit=hunt.circuit, protected_by=taken_back.entry["name"]).update(protected_by="")
    point = _point_of(taken_back) if "volts" in taken_back.entry else None
    if point is None:
        return
    stand = set(point.readings.filter(superseded_by=None).values_list("id", flat=True))
    for pair in taken_back.entry["volts"]:
        reading = uuid5(taken_back.id, pair)
        if reading in stand:
            withdraw(crew, author, point.id, uuid5(by.id, pair), reading)


def _point_of(event: HuntEvent) -> Point | None:
    points = Point.objects.filter(circuit__board=event.hunt.board)
    return next((point for point in points if str(point.id) == event.entry.get("at")), None)


def _label(hunt: Hunt, file: CircuitFile) -> None:
    """Points that were dead while it was tripped are behind it; those that stayed live are not any more."""
    if not isinstance(file, ProtectiveOutletFile):
        return
    found = file.hunted()
    was = {passed.name: passed.outcome.id for passed in found.passed if passed.name and passed.outcome}
    points = {str(point.id): point for point in Point.objects.filter(circuit=hunt.circuit)}
    for name, outcome in was.items():
        point = points.get(name)
        if point is None:
            continue
        behind = outcome == _DEAD
        if behind or point.protected_by == found.which:
            point.protected_by = found.which if behind else ""
            point.save()


def _fill_schedule(crew: Crew, hunt: Hunt, file: CircuitFile) -> None:
    """Every outlet with one way comes to stand on that way's circuit; new ones are made of what had only a name."""
    if not isinstance(file, MapFile):
        return
    circuits = {str(circuit.id): circuit for circuit in hunt.board.circuits.all()}
    points = {str(p.id): p for p in Point.objects.filter(circuit__board=hunt.board).select_related("circuit")}
    for outlet, ways in file.hunted().found.items():
        if len(ways) != 1:
            continue
        way = ways[0]
        circuit = circuits.get(way) or _circuit(crew, hunt, way)
        circuits[way] = circuit
        point = points.get(outlet)
        if point is None:
            _point(crew, hunt, circuit, outlet)
        elif point.circuit_id != circuit.id:
            put_point(crew, point.id, circuit.id, point.name, point.kind, point.terminals, point.length_m, point.room)


def _circuit(crew: Crew, hunt: Hunt, way: str) -> Circuit:
    return put_circuit(crew, _own_id(hunt, "way", way), hunt.board_id, way, None, None)


def _point(crew: Crew, hunt: Hunt, circuit: Circuit, outlet: str) -> Point:
    return put_point(crew, _own_id(hunt, "outlet", outlet), circuit.id, outlet, str(PointKind.OUTLET), _CONTACTS, None)


def _own_id(hunt: Hunt, what: str, name: str) -> UUID:
    """The same however often the schedule is filled."""
    return uuid5(hunt.id, f"{what} {name}")


def _state(hunt: Hunt) -> str:
    standing = stands(hunt.events.all())
    return state_of(hunt, standing, file_of(content_of(hunt, standing)).hunted().state)


def _note_on_the_circuit(circuit: Circuit | None) -> None:
    """What was noticed of a circuit and nothing has explained yet: of its hunts that are not closed."""
    if circuit is None:
        return
    hunts = Hunt.objects.filter(circuit=circuit).select_related("site").prefetch_related("events")
    noticed = {hunt.happened for hunt in hunts if _state(hunt) != CLOSED}
    if set(circuit.noticed) != noticed:
        circuit.noticed = sorted(noticed)
        circuit.save()
