"""Sites over HTTP: the tree from supply to point, and filling in an empty one."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from base.failures import each_shown
from base.problems import Problems
from base.shapes import Named
from base.unchanged import same_until_changed
from crews.services import at_own_site, crew_of
from evenprobe.practices.lengths import FOOT
from evenprobe.rounding import figures
from evenprobe.supplies import SYSTEMS
from readings.effects import effects_of
from readings.settling import settled
from readings.standings import not_shown, short_of, stands_as
from sites.loose import file_away, measure_now
from sites.models import Board, Circuit, Point, Site, Supply
from sites.services import (
    circuit_as,
    point_as,
    put_board,
    put_circuit,
    put_point,
    put_site,
    put_supply,
    retire,
    site_of,
    sites_of,
    supply_as,
)
from sites.shapes import (
    BoardIn,
    BoardOut,
    CircuitIn,
    CircuitOut,
    EffectOut,
    EffectsOut,
    FileIn,
    LooseIn,
    PointIn,
    PointLine,
    RetiredOut,
    RetireIn,
    SiteIn,
    SiteLine,
    SiteOut,
    SupplyIn,
    SupplyOut,
)

router = Router(tags=["sites"])

_STANDING = ("standing__verdict", "standing__made_of", "standing__changes")


@router.get("/sites", response=list[SiteLine])
@same_until_changed(settled)
def sites(request: HttpRequest) -> list[SiteLine]:
    crew = crew_of(request)
    here = Point.objects.in_use().filter(circuit__board__supply__site__crew=crew)
    at: dict[UUID, list[str]] = {}
    for site_id, *standing in here.values_list("circuit__board__supply__site_id", *_STANDING):
        at.setdefault(site_id, []).append(stands_as(*standing))
    return [
        SiteLine(
            id=s.id,
            name=s.name,
            practice=s.practice,
            verdicts=at.get(s.id, []),
            loose=s.loose,
            retired=s.retired_at is not None,
        )
        for s in at_own_site(request, sites_of(crew), "pk")
    ]


@router.get("/sites/{site_id}", response={200: SiteOut, 404: Problems})
@same_until_changed(settled)
def site(request: HttpRequest, site_id: UUID) -> SiteOut:
    return _site_out(site_of(crew_of(request), site_id))


@router.put("/sites/{site_id}", response={200: SiteOut, 409: Problems, 422: Problems})
def save_site(request: HttpRequest, site_id: UUID, data: SiteIn) -> SiteOut:
    return _site_out(put_site(crew_of(request), site_id, data.name, data.practice))


@router.put("/supplies/{supply_id}", response={200: SiteOut, 404: Problems, 422: Problems})
def save_supply(request: HttpRequest, supply_id: UUID, data: SupplyIn) -> SiteOut:
    supply = put_supply(crew_of(request), supply_id, data.site, data.name, data.system, data.earthing)
    return _site_out(supply.site)


@router.put("/boards/{board_id}", response={200: SiteOut, 404: Problems, 422: Problems})
def save_board(request: HttpRequest, board_id: UUID, data: BoardIn) -> SiteOut:
    return _site_out(put_board(crew_of(request), board_id, data.supply, data.name).supply.site)


@router.put("/circuits/{circuit_id}", response={200: SiteOut, 404: Problems, 422: Problems})
def save_circuit(request: HttpRequest, circuit_id: UUID, data: CircuitIn) -> SiteOut:
    circuit = put_circuit(crew_of(request), circuit_id, *_of_circuit(data))
    return _site_out(circuit.board.supply.site)


@router.put("/points/{point_id}", response={200: SiteOut, 404: Problems, 422: Problems})
def save_point(request: HttpRequest, point_id: UUID, data: PointIn) -> SiteOut:
    point = put_point(crew_of(request), point_id, *_of_point(data))
    return _site_out(point.circuit.board.supply.site)


@router.post("/supplies/{supply_id}/effects", response={200: EffectsOut, 404: Problems, 422: Problems})
def effects_of_supply(request: HttpRequest, supply_id: UUID, data: SupplyIn) -> EffectsOut:
    """What saving this would make of verdicts. Saves nothing."""
    return _effects(supply_as(crew_of(request), supply_id, data.site, data.name, data.system, data.earthing))


@router.post("/circuits/{circuit_id}/effects", response={200: EffectsOut, 404: Problems, 422: Problems})
def effects_of_circuit(request: HttpRequest, circuit_id: UUID, data: CircuitIn) -> EffectsOut:
    """What saving this would make of verdicts. Saves nothing."""
    return _effects(circuit_as(crew_of(request), circuit_id, *_of_circuit(data)))


@router.post("/points/{point_id}/effects", response={200: EffectsOut, 404: Problems, 422: Problems})
def effects_of_point(request: HttpRequest, point_id: UUID, data: PointIn) -> EffectsOut:
    """What saving this would make of verdicts. Saves nothing."""
    return _effects(point_as(crew_of(request), point_id, *_of_point(data)))


@router.put("/places/{what}/{place_id}/retired", response={200: RetireIn, 404: Problems})
def save_retired(request: HttpRequest, what: str, place_id: UUID, data: RetireIn) -> RetireIn:
    """Take a place out of use, or bring it back."""
    found = retire(crew_of(request), what, place_id, retired=data.retired)
    return RetireIn(retired=found.retired_at is not None)


@router.put("/loose-outlets/{point_id}", response={200: Named, 404: Problems, 409: Problems, 422: Problems})
def save_loose_outlet(request: HttpRequest, point_id: UUID, data: LooseIn) -> Named:
    """An outlet to measure now, wherever it is."""
    point = measure_now(crew_of(request), point_id, data.practice, data.terminals)
    return Named(id=point.id, name=point.name)


@router.put("/points/{point_id}/filed", response={200: SiteOut, 404: Problems, 422: Problems})
def save_filed(request: HttpRequest, point_id: UUID, data: FileIn) -> SiteOut:
    """Put a loose outlet where it belongs."""
    point = file_away(crew_of(request), point_id, data.circuit, data.name)
    return _site_out(point.circuit.board.supply.site)


def _of_circuit(data: CircuitIn) -> tuple[UUID, str, float | None, str | None, float | None, str | None]:
    return data.board, data.name, data.rating_a, data.conductor, data.residual_ma, data.curve


def _of_point(data: PointIn) -> tuple[UUID, str, str, list[str], float | None, str]:
    length_m = data.length_m if data.length_ft is None else data.length_ft * FOOT.metres
    return data.circuit, data.name, data.kind, data.terminals, length_m, data.room


def _effects(changed: Supply | Circuit | Point) -> EffectsOut:
    found = effects_of(changed)
    return EffectsOut(
        measured=found.measured,
        points=[
            EffectOut(
                id=one.point.id, name=one.point.name, circuit=one.point.circuit.name,
                before=one.before, after=one.after,
            )
            for one in found.changed
        ],
    )  # fmt: skip


def _site_out(site: Site) -> SiteOut:
    settled()
    of_circuit: dict[UUID, list[Point]] = {}
    here = Point.objects.in_use().filter(circuit__board__supply__site=site)
    for point in here.select_related("standing"):
        of_circuit.setdefault(point.circuit_id, []).append(point)
    supplies = list(site.supplies.prefetch_related("boards__circuits"))
    return SiteOut(
        id=site.id,
        name=site.name,
        practice=site.practice,
        loose=site.loose,
        retired=_retired(site, supplies),
        from_file=site.brought.said if site.brought else "",
        supplies=[
            SupplyOut(
                id=supply.id,
                name=supply.name,
                system=supply.system,
                system_title=SYSTEMS[supply.system].title,
                earthing=supply.earthing,
                boards=[
                    BoardOut(
                        id=board.id,
                        name=board.name,
                        circuits=[
                            CircuitOut(
                                id=circuit.id,
                                name=circuit.name,
                                rating_a=circuit.rating_a,
                                conductor=circuit.conductor,
                                residual_ma=circuit.residual_ma,
                                curve=circuit.curve,
                                points=each_shown(of_circuit.get(circuit.id, []), _point_line, _unshown_point),
                            )
                            for circuit in board.circuits.all()
                            if circuit.retired_at is None
                        ],
                    )
                    for board in supply.boards.all()
                    if board.retired_at is None
                ],
            )
            for supply in supplies
            if supply.retired_at is None
        ],
    )


def _retired(site: Site, supplies: list[Supply]) -> list[RetiredOut]:
    """What of a site is out of use itself; what hangs on it is not told again."""
    boards = [(supply, board) for supply in supplies for board in supply.boards.all()]
    circuits = [(board, circuit) for _, board in boards for circuit in board.circuits.all()]
    points = Point.objects.filter(circuit__board__supply__site=site).exclude(retired_at=None).select_related("circuit")
    placed: list[tuple[str, Site | Supply | Board | Circuit, Supply | Board | Circuit | Point]] = [
        *(("supply", site, supply) for supply in supplies),
        *(("board", supply, board) for supply, board in boards),
        *(("circuit", board, circuit) for board, circuit in circuits),
        *(("point", point.circuit, point) for point in points),
    ]
    return [
        RetiredOut(what=what, id=one.id, name=str(one), under=str(under))
        for what, under, one in placed
        if one.retired_at is not None
    ]


def _point_line(point: Point) -> PointLine:
    return _line(point, short_of(point.standing))


def _unshown_point(point: Point, why: str) -> PointLine:
    return _line(point, not_shown(why))


def _line(point: Point, said: dict[str, Any]) -> PointLine:
    return PointLine(
        id=point.id,
        name=point.name,
        kind=point.kind,
        terminals=point.terminals if isinstance(point.terminals, list) else [],
        length_m=point.length_m,
        length_ft=None if point.length_m is None else figures(point.length_m / FOOT.metres),
        room=point.room,
        protected_by=point.protected_by,
        **said,
    )
