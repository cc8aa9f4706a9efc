"""Writing down equipment, and an outlet nobody has on record. Each write twice is one record."""

from typing import Any
from uuid import UUID, uuid5

from django.db import transaction
from django.db.models import QuerySet

from base.problems import NotFoundHere, Refused
from crews.models import Crew
from evenprobe.formats import parse
from evenprobe.formats.needs import NeedsEntry
from evenprobe.wiring import PointKind
from plugging.models import Equipment
from sites.models import Point
from sites.services import put_board, put_circuit, put_point, put_site, put_supply, site_of


def equipment_of(crew: Crew) -> QuerySet[Equipment]:
    return Equipment.objects.filter(crew=crew)


def one_of(crew: Crew, equipment_id: UUID) -> Equipment:
    found = equipment_of(crew).filter(id=equipment_id).first()
    if found is None:
        raise NotFoundHere("equipment")
    return found


@transaction.atomic
def put_equipment(crew: Crew, equipment_id: UUID, entry: dict[str, Any]) -> Equipment:
    """Write down what something needs, or change what is known of it."""
    checked = parse(NeedsEntry, entry)
    existing = Equipment.objects.filter(id=equipment_id).first()
    if existing is not None and existing.crew_id != crew.id:
        raise Refused(("id", "this id is taken"), status=409)
    found = existing or Equipment(id=equipment_id, crew=crew)
    found.entry = checked.model_dump(mode="json", exclude_none=True)
    found.save()
    return found


@transaction.atomic
def put_strange_outlet(
    crew: Crew,
    point_id: UUID,
    site_id: UUID,
    site: dict[str, str] | None,
    supply: dict[str, str],
    outlet: dict[str, Any],
) -> Point:
    """An outlet with whatever is known of what feeds it: the supply, a board and a circuit of its own.

    `site`: its name and practice, where it is a new one. Written again, what is known of it is changed.
    """
    if site is not None:
        put_site(crew, site_id, site["name"], site["practice"])
    else:
        site_of(crew, site_id)
    there = Point.objects.filter(id=point_id).first()
    if there is not None and there.circuit_id != uuid5(point_id, "circuit"):
        raise Refused(("id", "this outlet is on record with its circuit already"), status=409)
    name = outlet["name"].strip()
    fed = put_supply(
        crew, uuid5(point_id, "supply"), site_id, f"What feeds {name}", supply["system"], supply["earthing"]
    )
    board = put_board(crew, uuid5(point_id, "board"), fed.id, "Not on record")
    circuit = put_circuit(
        crew, uuid5(point_id, "circuit"), board.id, name, outlet["rating_a"], None, outlet["residual_ma"]
    )
    return put_point(crew, point_id, circuit.id, name, str(PointKind.OUTLET), outlet["terminals"], None)
