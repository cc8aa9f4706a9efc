"""All that is on record of sites, looked up once for every visit to them: circuits with points, and what is open."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass, field
from uuid import UUID

from hunts.models import Hunt
from proofs.models import Proof
from readings.point_view import PointView, with_record
from rounds.models import Round
from sheets.records import SheetView
from sites.models import Circuit, Point, Site


@dataclass
class CircuitRecord:
    """A circuit in use with its points, in cable order, and what was done on it."""

    circuit: Circuit
    views: list[PointView] = field(default_factory=list)

    @property
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


_IN_ORDER = (
    "circuit__board__supply__position", "circuit__board__position", "circuit__board__name",
    "circuit__position", "circuit__name", "position", "name",
)  # fmt: skip


def records_of(sites: Iterable[Site]) -> dict[UUID, SiteRecord]:
    """By the site's id, in as many queries for ten sites as for one."""
    wanted = {site.id for site in sites}
    found: dict[UUID, SiteRecord] = defaultdict(SiteRecord)
    points = with_record(Point.objects.in_use().filter(circuit__board__supply__site__in=wanted))
    for point in points.order_by(*_IN_ORDER):
        view = PointView(point)
        of_circuit = found[view.site.id].circuits
        of_circuit.setdefault(str(point.circuit_id), CircuitRecord(point.circuit)).views.append(view)
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
