"""What a picture can be hung on, and where that is: a row a sort of thing."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db.models import Model

from base.problems import NotFoundHere
from crews.models import Crew
from hunts.models import HuntEvent
from kit.models import Tester
from proofs.models import ProofEvent
from readings.models import Reading
from rounds.models import RoundEvent
from sheets.models import SheetEntry
from sites.models import Circuit, Point, Site
from visits.models import Visit


@dataclass(frozen=True)
class Holder:
    """`key`: the column of its id. `crew`: the way to its crew. `where`: site, circuit, point or tester of a row."""

    model: type[Model]
    crew: str
    where: Callable[[Any], dict[str, Any]]
    key: str = "id"
    beside: tuple[str, ...] = ()


_SITE = "circuit__board__supply__site"


def _at_point(point: Point) -> dict[str, Any]:
    return {"site": point.circuit.board.supply.site, "circuit": point.circuit, "point": point}


def _at_circuit(circuit: Circuit) -> dict[str, Any]:
    return {"site": circuit.board.supply.site, "circuit": circuit}


_HOLDERS: Mapping[str, Holder] = {
    "site": Holder(Site, "crew", lambda row: {"site": row}),
    "circuit": Holder(Circuit, "board__supply__site__crew", _at_circuit, beside=("board__supply__site",)),
    "point": Holder(Point, f"{_SITE}__crew", _at_point, beside=(_SITE,)),
    "tester": Holder(Tester, "crew", lambda row: {"tester": row}),
    "visit": Holder(Visit, "site__crew", lambda row: {"site": row.site}, beside=("site",)),
    "reading": Holder(Reading, f"point__{_SITE}__crew", lambda row: _at_point(row.point), beside=(f"point__{_SITE}",)),
    "dead-test": Holder(
        SheetEntry, f"sheet__{_SITE}__crew", lambda row: _at_circuit(row.sheet.circuit), beside=(f"sheet__{_SITE}",)
    ),
    "isolation": Holder(
        ProofEvent,
        "proof__site__crew",
        lambda row: {"site": row.proof.site, "circuit": row.proof.circuit},
        beside=("proof__site", "proof__circuit"),
    ),
    "hunt": Holder(
        HuntEvent,
        "hunt__site__crew",
        lambda row: {"site": row.hunt.site, "circuit": row.hunt.circuit},
        beside=("hunt__site", "hunt__circuit"),
    ),
    "round": Holder(RoundEvent, f"point__{_SITE}__crew", lambda row: _at_point(row.point), beside=(f"point__{_SITE}",)),
}


def where_is(crew: Crew, on: str, of: UUID) -> dict[str, Any]:
    """Where a thing of the crew's is. Raises NotFoundHere for anybody else's."""
    holder = _HOLDERS.get(on)
    if holder is None:
        raise NotFoundHere(on)
    rows = holder.model._default_manager.filter(**{holder.crew: crew, holder.key: of})
    row = rows.select_related(*holder.beside).first() if holder.beside else rows.first()
    if row is None:
        raise NotFoundHere(on)
    return holder.where(row)
