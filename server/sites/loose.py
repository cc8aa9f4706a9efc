"""An outlet measured before anybody said where it belongs: on a site of its crew for such, until it is filed."""

from uuid import UUID, uuid5

from django.db import transaction

from base.problems import Refused
from crews.models import Crew
from evenprobe.practices import PRACTICES, Practice
from evenprobe.supplies import SupplySystem
from evenprobe.wiring import PointKind
from sites.models import Circuit, Point
from sites.services import find, put_board, put_circuit, put_point, put_site, put_supply, retire

NAME = "Not filed yet"
_EARTHING = "TN-S"
"""What is assumed of a supply nobody has told anything of."""


def _supply_assumed(practice: Practice, terminals: list[str]) -> SupplySystem:
    """The practice's first supply that an outlet with such contacts can be on. Raises Refused where there is none."""
    for system in practice.systems:
        if any(list(contacts.terminals) == terminals for contacts in practice.contacts_on(system)):
            return system
    raise Refused(("terminals", f"no supply of {practice.name} has an outlet with {', '.join(terminals)}"))


@transaction.atomic
def measure_now(crew: Crew, point_id: UUID, practice_id: str, terminals: list[str]) -> Point:
    """A loose outlet with such contacts, ready to be measured. The same again changes nothing."""
    practice = PRACTICES.get(practice_id)
    if practice is None:
        raise Refused(("practice", f"must be one of {', '.join(PRACTICES)}"))
    existing = Point.objects.filter(id=point_id).first()
    if existing is not None:
        own = find(crew, Point, point_id)
        if own.terminals != terminals:
            raise Refused(("id", "this id already belongs to another outlet"), status=409)
        return own
    system = _supply_assumed(practice, terminals)
    site = put_site(crew, uuid5(crew.id, f"loose {practice.id}"), f"{NAME}, {practice.name}", practice.id)
    if not site.loose:
        site.loose = True
        site.save()
    name = f"Outlet {Point.objects.filter(circuit__board__supply__site=site).count() + 1}"
    supply = put_supply(crew, uuid5(point_id, "supply"), site.id, f"What feeds {name}", system.id, _EARTHING)
    board = put_board(crew, uuid5(point_id, "board"), supply.id, NAME)
    circuit = put_circuit(crew, uuid5(point_id, "circuit"), board.id, name, None, None)
    return put_point(crew, point_id, circuit.id, name, str(PointKind.OUTLET), terminals, None)


@transaction.atomic
def file_away(crew: Crew, point_id: UUID, circuit_id: UUID, name: str) -> Point:
    """Put a loose outlet where it belongs, with all that was read there. The same again changes nothing."""
    point = find(crew, Point, point_id)
    circuit = find(crew, Circuit, circuit_id)
    was, now = point.circuit.board.supply, circuit.board.supply
    if was.site.practice != now.site.practice:
        raise Refused(("circuit", "its site is of another practice, where contacts have other names"))
    filed = put_point(crew, point_id, circuit_id, name, point.kind, point.terminals, point.length_m, point.room)
    if was.site.loose and was.id != now.id and not Point.objects.filter(circuit__board__supply=was).exists():
        retire(crew, "supply", was.id, retired=True)
    return filed
