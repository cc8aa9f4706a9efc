"""All that is on record of sites, looked up once for every visit to them: circuits with points, and what is open."""

from collections import defaultdict
from collections.abc import Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property
from typing import NamedTuple
from uuid import UUID

from django.db.models import Exists, OuterRef, Prefetch, Subquery

from hunts.models import Hunt
from proofs.models import Proof
from readings.models import Reading
from readings.point_view import PointView, with_record
from rounds.models import Round
from sheets.models import Sheet, SheetEntry
from sheets.records import ENTRIES, SheetView, done_on_circuit
from sites.models import IN_ORDER, Circuit, Point, Site


class Taken(NamedTuple):
    """A reading, without what it showed. `counts`: neither corrected nor withdrawn."""

    point: UUID
    at: datetime
    by: str
    counts: bool


@dataclass
class CircuitRecord:
    """A circuit in use with its points, in cable order, and what was done on it.

    `taken`: its readings, where they were asked for. `views`: of those that `looked_into` was called with.
    """

    circuit: Circuit
    taken: list[Taken] = field(default_factory=list)
    views: list[PointView] = field(default_factory=list)

    @cached_property
    def points(self) -> list[Point]:
        return [point for point in self.circuit.points.all() if point.retired_at is None]

    @cached_property
    def sheets(self) -> list[SheetView]:
        """The latest first."""
        return [SheetView(sheet) for sheet in self.circuit.sheets.all()]

    @property
    def proofs(self) -> list[Proof]:
        """Its own and those its sheets rely on, the latest first; what came from a file is none."""
        found = {proof.id: proof for proof in self.circuit.proofs.all()}
        found |= {s.proof.id: s.proof for s in self.circuit.sheets.all() if s.proof is not None}
        own = [proof for proof in found.values() if proof.brought_at is None]
        return sorted(own, key=lambda proof: proof.begun_at, reverse=True)


@dataclass
class SiteRecord:
    """Of one site. `circuits` by their ids, board by board. `apart`: sheets that say that something is."""

    circuits: dict[str, CircuitRecord] = field(default_factory=dict)
    apart: list[SheetView] = field(default_factory=list)
    proofs: list[Proof] = field(default_factory=list)
    hunts: list[Hunt] = field(default_factory=list)
    rounds: list[Round] = field(default_factory=list)


def looked_into(circuits: Sequence[CircuitRecord]) -> list[CircuitRecord]:
    """The same with all that was read at their points, in as many queries for ten as for one."""
    own = {record.circuit.id: record for record in circuits}
    points = Point.objects.in_use().filter(circuit__in=own)
    for point in with_record(points).order_by(*IN_ORDER):
        own[point.circuit_id].views.append(PointView(point))
    return list(circuits)


def records_of(
    sites: Iterable[Site], circuits: Collection[str] | None = None, *, with_taken: bool = False
) -> dict[UUID, SiteRecord]:
    """By the site's id, in as many queries for ten sites as for one.

    `circuits`: those that are asked about, all where none are named; `with_taken`: their readings too.
    """
    wanted = {site.id for site in sites}
    found: dict[UUID, SiteRecord] = defaultdict(SiteRecord)
    by_circuit = {}
    for circuit in _circuits(wanted, circuits):
        by_circuit[circuit.id] = own = CircuitRecord(circuit)
        if own.points:
            found[circuit.board.supply.site_id].circuits[str(circuit.id)] = own
    for circuit_id, taken in _taken(by_circuit) if with_taken else ():
        by_circuit[circuit_id].taken.append(taken)
    for sheet in _apart(wanted):
        found[sheet.circuit.board.supply.site_id].apart.append(SheetView(sheet))
    for proof in (
        Proof.objects.filter(site__in=wanted, brought_at=None).select_related("site").prefetch_related("events")
    ):
        found[proof.site_id].proofs.append(proof)
    for hunt in (
        Hunt.objects.filter(site__in=wanted).select_related("site", "circuit", "board").prefetch_related("events")
    ):
        found[hunt.site_id].hunts.append(hunt)
    for one in (
        Round.objects.filter(site__in=wanted).select_related("site", "circuit").prefetch_related("events__point")
    ):
        found[one.site_id].rounds.append(one)
    return found


def _circuits(sites: Collection[UUID], named: Collection[str] | None) -> Iterable[Circuit]:
    """Those in use, board by board, each with what was done on it."""
    over = ("", "board__", "board__supply__", "board__supply__site__")
    own = Circuit.objects.filter(board__supply__site__in=sites, **{f"{place}retired_at": None for place in over})
    if named is not None:
        own = own.filter(id__in=[UUID(each) for each in named])
    points = Prefetch("points", Point.objects.select_related("standing").defer("standing__said", "standing__failed"))
    return (
        own.select_related("board__supply__site__crew")
        .prefetch_related(points, *done_on_circuit())
        .order_by("board__supply__position", "board__position", "board__name", "position", "name")
    )


def _taken(circuits: Collection[UUID]) -> Iterator[tuple[UUID, Taken]]:
    """Each with the circuit it is of."""
    rows = Reading.objects.filter(point__circuit__in=circuits, entry__isnull=False)
    columns = rows.values_list("point__circuit_id", "point_id", "taken_at", "by_name", "superseded_by")
    for circuit, point, at, by, superseded in columns:
        yield circuit, Taken(point, at, by, superseded is None)


def _apart(sites: Collection[UUID]) -> Iterable[Sheet]:
    """Of each circuit in use the latest sheet, where it says anything of loads."""
    here = Circuit.objects.filter(board__supply__site__in=sites, retired_at=None)
    latest = Sheet.objects.filter(circuit=OuterRef("circuit")).order_by("-begun_at").values("pk")[:1]
    told = SheetEntry.objects.filter(sheet=OuterRef("pk"), entry__type="loads")
    return (
        Sheet.objects.filter(Exists(told), circuit__in=here, pk=Subquery(latest))
        .select_related("circuit__board__supply")
        .prefetch_related(ENTRIES)
    )
