"""The sandbox of a case: a crew of its own with the one site, its point and the testers at hand."""

from typing import Any
from uuid import UUID, uuid5

from crews.models import Crew
from crews.services import Author
from evenprobe.formats import CaseFile, InstrumentEntry
from evenprobe.formats.survey import CircuitEntry
from evenprobe.hunting.intake import HAPPENED
from evenprobe.hunting.run import BOARD
from hunts.layouts import Laid
from hunts.services import Begun, begin_along
from kit.services import put_tester
from sites.models import Point
from sites.services import put_board, put_circuit, put_point, put_site, put_supply

_SITE, _BOARD = "Practice", "Board"
_HEAD = ("format", "version", "practice", "hunt", "seen")
"""Of a circuit file, what a hunt is known by besides."""


def tester_id(case: UUID, name: str) -> UUID:
    """What a tester of the case is in its sandbox."""
    return uuid5(case, f"tester {name}")


def place_id(case: UUID, name: str) -> UUID:
    """What a box of the case is in its sandbox."""
    return uuid5(case, f"box {name}")


def site_id(case: UUID) -> UUID:
    return uuid5(case, "site")


def circuit_id(case: UUID) -> UUID:
    """The one that a case is on."""
    return uuid5(case, "circuit")


def point_id(case: UUID, file: CaseFile, number: int) -> UUID:
    """What a point of the case is in its sandbox."""
    return uuid5(case, f"point {file.installation.points[number].id}" if file.solved.each else "point")


def hunt_id(case: UUID) -> UUID:
    return uuid5(case, "hunt")


def set_up(crew: Crew, author: Author, case_id: UUID, file: CaseFile) -> Point:
    """The site of a case in its crew, with its testers; begun already is what is hunted in it."""
    installation = file.installation
    entry = installation.points[0]
    supply, circuit = entry.supply or installation.supply, entry.circuit or CircuitEntry()
    site = put_site(crew, site_id(case_id), _SITE, str(installation.practice))
    fed = put_supply(crew, uuid5(case_id, "supply"), site.id, _SITE, supply.system, str(supply.earthing))
    board = put_board(crew, uuid5(case_id, "board"), fed.id, circuit.board or _BOARD)
    label = entry.label or file.title
    device = circuit.rating_a, _given(circuit.conductor), circuit.residual_ma, _given(circuit.curve)
    hung = put_circuit(crew, circuit_id(case_id), board.id, circuit.label or label, *device)
    if entry.noticed:
        hung.noticed = list(map(str, entry.noticed))
        hung.save()
    for instrument in installation.instruments:
        put_tester(crew, tester_id(case_id, instrument.id), _as_kept(instrument))
    if file.circuit is not None:
        about = hung.id, label, str(entry.kind), list(map(str, entry.terminals))
        return _hunt_set_up(crew, author, case_id, file.circuit, about)
    points = [
        put_point(
            crew, point_id(case_id, file, number), hung.id, point.label or (point.id if number else label),
            str(point.kind), list(map(str, point.terminals)), point.circuit.length_m if point.circuit else None,
        )
        for number, point in enumerate(installation.points)
    ]  # fmt: skip
    return points[0]


def _hunt_set_up(
    crew: Crew, author: Author, case_id: UUID, content: dict[str, Any], about: tuple[UUID, str, str, list[str]]
) -> Point:
    """What is hunted in a case, and the points along it: of a chain the one that it is of.

    `about`: circuit, name, kind and contacts of a point that has no other.
    """
    hung, label, kind, contacts = about
    boxes = content.get("points", [])
    ids = {box["id"]: str(place_id(case_id, box["id"])) for box in boxes}
    points = [
        put_point(crew, place_id(case_id, box["id"]), hung, box["id"], kind, contacts, None) for box in boxes
    ] or [put_point(crew, uuid5(case_id, "point"), hung, label, kind, contacts, None)]
    laid = {key: value for key, value in content.items() if key not in _HEAD}
    if boxes:
        laid["points"] = [{**box, "id": ids[box["id"]], "after": ids.get(box["after"], BOARD)} for box in boxes]
    names = {found: name for name, found in ids.items()}
    hunted = str(content["hunt"])
    happened = next(row for row in HAPPENED.values() if hunted in row.hunts)
    begun = Begun(hung, None, str(happened), hunted, {})
    circuit = points[0].circuit
    begin_along(Laid(laid, names), author, hunt_id(case_id), begun, circuit.board, circuit)
    return points[0]


def _as_kept(instrument: InstrumentEntry) -> dict[str, Any]:
    """By the name the case has for it, where it says no other."""
    entry = instrument.model_dump(mode="json", exclude_none=True, exclude={"id", "leads", "adapters"})
    return {"label": instrument.id.replace("-", " "), **entry}


def _given(value: Any) -> str | None:
    return None if value is None else str(value)
