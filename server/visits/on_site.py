"""All that is on record of sites, looked up once for every visit to them: circuits with points, and what is open."""

from collections import defaultdict
from collections.abc import Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property
from typing import NamedTuple
from uuid import UUID

from hunts.models import Hunt
from proofs.models import Proof
from readings.models import Reading
from readings.point_view import PointView, with_record
from rounds.models import Round
from sheets.records import SheetView, of_circuit
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

    `taken`: its readings, of circuits that were asked for. `views`: of those that `looked_into` was called with.
    """

    circuit: Circuit
    points: list[Point] = field(default_factory=list)
    taken: list[Taken] = field(default_factory=list)
    views: list[PointView] = field(default_factory=list)

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
    """Of one site. `circuits` by their ids, board by board."""

    circuits: dict[str, CircuitRecord] = field(default_factory=dict)
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


def _taken(circuits: Collection[str]) -> Iterator[tuple[str, Taken]]:
    """Of circuits, each with the circuit it is of."""
    rows = Reading.objects.filter(point__circuit__in=[UUID(circuit) for circuit in circuits], entry__isnull=False)
    columns = rows.values_list("point__circuit_id", "point_id", "taken_at", "by_name", "superseded_by")
    for circuit, point, at, by, superseded in columns:
        yield str(circuit), Taken(point, at, by, superseded is None)


def records_of(sites: Iterable[Site], circuits: Collection[str] = ()) -> dict[UUID, SiteRecord]:
    """By the site's id, in as many queries for ten sites as for one. `circuits`: whose readings are asked for."""
    wanted = {site.id for site in sites}
    found: dict[UUID, SiteRecord] = defaultdict(SiteRecord)
    by_circuit: dict[str, CircuitRecord] = {}
    points = Point.objects.in_use().filter(circuit__board__supply__site__in=wanted)
    beside = points.select_related("standing", "circuit__board__supply__site__crew")
    for point in beside.prefetch_related(*of_circuit("circuit")).order_by(*IN_ORDER):
        own = by_circuit.setdefault(str(point.circuit_id), CircuitRecord(point.circuit))
        own.points.append(point)
        found[point.stands_at.id].circuits[str(point.circuit_id)] = own
    for circuit, taken in _taken(circuits) if circuits else ():
        if circuit in by_circuit:
            by_circuit[circuit].taken.append(taken)
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
