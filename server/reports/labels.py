"""What hangs at the installation: a board's schedule, labels of outlets, tags of locks."""

from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass
from typing import Any

from django.utils import timezone

from base.problems import Refused
from evenprobe.formats.said import circuit_said
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS
from proofs.models import Proof
from reports.dates import day_said, moment_said
from sheets.records import locks_of
from sites.models import Board, Circuit, Point, Site

PAGES = {"a4": (210.0, 297.0), "us-letter": (215.9, 279.4)}
"""Millimetres."""
_LEAST_LABEL = (20.0, 9.0)
_CODE_SHARE = 0.8
"""Of a label's height, that its code takes."""
_SMALLEST_CODE = 10.0
"""Below this a telephone does not read it."""
_MOST_LABELS = 2000

Link = Callable[[str], str]


@dataclass(frozen=True)
class LabelSheet:
    """Millimetres: of a label, of the margins at the left and the top of the sheet, and between labels."""

    width: float = 63.5
    height: float = 29.6
    left: float = 9.0
    top: float = 15.0
    gap: float = 0.0

    def laid_out(self, paper: str) -> dict[str, float]:
        """As the layout has it. Raises Refused for labels that do not fit on the paper."""
        page_width, page_height = PAGES[paper]
        if self.width < _LEAST_LABEL[0] or self.height < _LEAST_LABEL[1]:
            raise Refused(("width", f"a label is {_LEAST_LABEL[0]:g} by {_LEAST_LABEL[1]:g} mm or more"))
        if min(self.left, self.top, self.gap) < 0:
            raise Refused(("left", "margins and gaps are 0 mm or more"))
        columns = int((page_width - self.left + self.gap) // (self.width + self.gap))
        rows = int((page_height - self.top + self.gap) // (self.height + self.gap))
        if columns < 1 or rows < 1:
            raise Refused(("width", f"such a label does not fit on a sheet of {page_width:g} by {page_height:g} mm"))
        code = self.height * _CODE_SHARE
        code = code if _SMALLEST_CODE <= code <= self.width / 2 else 0.0
        about = {"page_width": page_width, "page_height": page_height, "columns": columns, "rows": rows, "code": code}
        return {**asdict(self), **about}


def schedule_data(board: Board, by: str) -> dict[str, Any]:
    """Of the circuits in use, in their order; and what is behind which protective outlet."""
    site = board.supply.site
    practice = PRACTICES[site.practice]
    circuits = [c for c in board.circuits.all() if c.retired_at is None]
    points = {c.id: [p for p in c.points.all() if p.retired_at is None] for c in circuits}
    behind: dict[str, list[str]] = {}
    for of_circuit in points.values():
        for point in of_circuit:
            if point.protected_by:
                behind.setdefault(point.protected_by, []).append(point.name)
    supply = f"{board.supply.name}, {SYSTEMS[board.supply.system].title}, {board.supply.earthing}"
    return {
        "title": board.name,
        "subtitle": f"{site.name}. {supply}",
        "circuits": [_way(number, c, points[c.id]) for number, c in enumerate(circuits, 1)],
        "behind": [{"name": name, "points": names} for name, names in behind.items()],
        "made_on": day_said(timezone.localdate(), practice.language),
        "by": by,
        "paper": practice.paper,
        "language": practice.language,
    }


def _way(number: int, circuit: Circuit, points: Sequence[Point]) -> dict[str, Any]:
    practice = PRACTICES[circuit.board.supply.site.practice]
    device = circuit_said(practice, circuit.rating_a, circuit.curve, circuit.residual_ma, "", None)
    return {
        "number": number,
        "name": circuit.name,
        "device": device.replace(" · ", ", ") or "?",
        "conductor": circuit.conductor.replace("mm2", "mm²"),
        "points": [point.name for point in points],
    }


def labels_data(site: Site, points: Sequence[Point], sheet: LabelSheet, link: Link, qr: Link) -> dict[str, Any]:
    """`link`: the address of a path in this application; `qr`: a text as a code."""
    if not points:
        raise Refused(("circuit", "there is no point there to label"))
    if len(points) > _MOST_LABELS:
        raise Refused(("circuit", f"more than {_MOST_LABELS} labels; take a circuit at a time"))
    return {
        "title": f"{site.name}, labels",
        "sheet": sheet.laid_out(PRACTICES[site.practice].paper),
        "outlines": True,
        "labels": [
            {
                "name": point.name,
                "circuit": point.circuit.name,
                "board": point.circuit.board.name,
                "qr": qr(link(f"/bench/{point.id}")),
            }
            for point in points
        ],
    }


def tags_data(site: Site, proofs: Sequence[Proof], phone: str, link: Link, qr: Link) -> dict[str, Any]:
    """A tag for every lock that is on."""
    practice = PRACTICES[site.practice]
    tags = [
        {
            "lock": lock.name,
            "source": next((s["label"] for s in proof.sources if s["id"] == source), source),
            "by": lock.put_by,
            "since": moment_said(put_on, practice.language),
            "work": proof.name,
            "qr": qr(link(f"/prove-dead/{proof.id}")),
        }
        for proof in proofs
        for source, lock in locks_of(proof).items()
        if lock.taken_by is None and (put_on := _put_on(proof, source)) is not None
    ]
    if not tags:
        raise Refused(("site", "no lock is on at this site"))
    about = {"paper": practice.paper, "language": practice.language}
    return {"title": f"{site.name}, lock tags", "tags": tags, "phone": phone, **about}


def _put_on(proof: Proof, source: str) -> Any:
    """When the lock of a source was last put on."""
    times = [e.at for e in proof.events.all() if e.type == "locked" and e.entry.get("source") == source]
    return times[-1] if times else None
