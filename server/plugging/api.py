"""Before plugging in, over HTTP: equipment, the outlets there are, and whether one is for the other."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from base.problems import Problems
from crews.services import crew_of
from evenprobe.formats.answers.plugging import MayPlugIn
from evenprobe.plugging import may_plug_in
from evenprobe.plugging.sentences import CAUTION
from evenprobe.rounds import quick_matches
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import TYPED
from evenprobe.wiring import OUTLETS
from kit.services import tester_of
from plugging.models import Equipment
from plugging.services import equipment_of, one_of, put_equipment, put_strange_outlet
from plugging.shapes import EquipmentIn, EquipmentOut, OutletLine, PlugInOut, StrangeOutletIn
from readings.interpretations import reads_like, result_of
from readings.point_view import view_of
from readings.quick import quick_out
from sites.models import Point

router = Router(tags=["plugging"])


@router.get("/equipment", response=list[EquipmentOut])
def equipment(request: HttpRequest) -> list[EquipmentOut]:
    return [_equipment(one) for one in equipment_of(crew_of(request))]


@router.put("/equipment/{equipment_id}", response={200: EquipmentOut, 409: Problems, 422: Problems})
def save_equipment(request: HttpRequest, equipment_id: UUID, data: EquipmentIn) -> EquipmentOut:
    return _equipment(put_equipment(crew_of(request), equipment_id, data.dict(exclude_none=True)))


@router.get("/outlets", response=list[OutletLine])
def outlets(request: HttpRequest) -> list[OutletLine]:
    """Everything of the crew's sites that something may be plugged into."""
    points = Point.objects.in_use().filter(circuit__board__supply__site__crew=crew_of(request), kind__in=OUTLETS)
    return [
        OutletLine(
            id=point.id,
            name=point.name,
            circuit=point.circuit.name,
            site=point.circuit.board.supply.site.name,
            practice=point.circuit.board.supply.site.practice,
        )
        for point in points.select_related("circuit__board__supply__site").order_by(
            "circuit__board__supply__site__created_at", "circuit__position", "position"
        )
    ]


@router.put("/outlets/{point_id}", response={200: OutletLine, 404: Problems, 409: Problems, 422: Problems})
def save_outlet(request: HttpRequest, point_id: UUID, data: StrangeOutletIn) -> OutletLine:
    point = put_strange_outlet(
        crew_of(request),
        point_id,
        data.site,
        data.new_site.dict() if data.new_site else None,
        data.supply.dict(),
        data.outlet.dict(),
    )
    site = point.circuit.board.supply.site
    return OutletLine(id=point.id, name=point.name, circuit=point.circuit.name, site=site.name, practice=site.practice)


@router.get("/points/{point_id}/plug-in/{equipment_id}", response={200: PlugInOut, 404: Problems}, by_alias=True)
def plug_in(request: HttpRequest, point_id: UUID, equipment_id: UUID, tester: UUID | None = None) -> dict[str, Any]:
    """Whether the equipment may be plugged in there. `tester`: what the quick set would be taken with."""
    crew = crew_of(request)
    view, wanted = view_of(crew, point_id), one_of(crew, equipment_id)
    point = view.point
    held = tester_of(crew, tester).instrument().instrument() if tester else TYPED
    supply = point.circuit.board.supply
    found = result_of(view)
    own = view.counting()
    return {
        "id": point.id,
        "name": point.name,
        "kind": point.kind,
        "terminals": point.terminals,
        "practice": supply.site.practice,
        "site": {"id": supply.site.id, "name": supply.site.name},
        "supply": {"id": supply.id, "name": supply.name},
        "system": supply.system,
        "system_title": SYSTEMS[supply.system].title,
        "earthing": supply.earthing,
        "equipment": _equipment(wanted),
        **dict(MayPlugIn.of(may_plug_in(view.facts, view.readings, wanted.needs().needs(), found))),
        "caution": CAUTION,
        "verdict": str(found.verdict),
        "reads_like": reads_like(view),
        "quick": [quick_out(m, reading, own) for m, reading in quick_matches(view.facts, held, view.readings)],
    }


def _equipment(one: Equipment) -> EquipmentOut:
    return EquipmentOut(id=one.id, **one.entry)
