"""What corrects what among readings of a file: it has to be there, at its point, once; none goes in without the other.

A reading that was corrected must not come to count because its correction could not come in, nor a correction stand
where what it corrects is not.
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID

from exchange.rows.fates import RowFate
from readings.models import Reading

_AT_A_TIME = 900


@dataclass(frozen=True)
class Link:
    """Of a row that could be read. `corrects`: the id here of what it corrects; `status`: as the row says."""

    row: RowFate
    id: UUID
    point: UUID
    corrects: UUID | None
    status: str


def check_corrections(links: Sequence[Link]) -> dict[UUID, int]:
    """Refuse the rows that cannot go in for what corrects them, or what they correct. How many come before each."""
    by_id = {link.id: link for link in links}
    there = _on_record([link.corrects for link in links if link.corrects])
    correctors: dict[UUID, Link] = {}
    for link in links:
        if link.corrects is None or link.row.fate != "new":
            continue
        why = _why_not(link, by_id.get(link.corrects), there.get(link.corrects))
        first = correctors.setdefault(link.corrects, link)
        if why or first is not link:
            _refuse(link.row, "corrects", why or f"line {first.row.line} corrects the same")
    depth = _in_order(by_id)
    _none_without_the_other(by_id, correctors)
    return depth


def _on_record(ids: Sequence[UUID]) -> dict[UUID, Reading]:
    found: dict[UUID, Reading] = {}
    for start in range(0, len(ids), _AT_A_TIME):
        asked = Reading.objects.filter(id__in=ids[start : start + _AT_A_TIME]).select_related("superseded_by")
        found |= {reading.id: reading for reading in asked}
    return found


def _why_not(link: Link, in_file: Link | None, on_record: Reading | None) -> str:
    if on_record is not None:
        if on_record.point_id != link.point:
            return "no such reading at this point"
        return "it was corrected or withdrawn already" if hasattr(on_record, "superseded_by") else ""
    if in_file is None or in_file.point != link.point:
        return "no such reading at this point"
    return "it was withdrawn" if in_file.status == "withdrawn" else ""


def _in_order(by_id: dict[UUID, Link]) -> dict[UUID, int]:
    """How many corrections come before each; those that go in a circle are refused."""
    depth: dict[UUID, int] = {}
    for link in by_id.values():
        path: list[Link] = []
        seen: set[UUID] = set()
        at: Link | None = link
        while at is not None and at.id not in depth and at.id not in seen:
            path.append(at)
            seen.add(at.id)
            at = by_id.get(at.corrects) if at.corrects else None
        circle = at is not None and at.id in seen
        start = -1 if at is None or circle else depth[at.id]
        for number, one in enumerate(reversed(path), 1):
            depth[one.id] = start + number
            if circle and one.row.fate == "new":
                _refuse(one.row, "corrects", "corrections go in a circle")
    return depth


def _none_without_the_other(by_id: dict[UUID, Link], correctors: dict[UUID, Link]) -> None:
    """What cannot go in takes with it what it corrects, and what corrects it, and so on."""
    beside: dict[UUID, list[tuple[Link, str]]] = defaultdict(list)
    for corrected, link in correctors.items():
        if corrected in by_id:
            beside[corrected].append((link, "what it corrects, on line {line}, cannot go in"))
            if by_id[corrected].status != "withdrawn":
                beside[link.id].append((by_id[corrected], "what corrects it, on line {line}, cannot go in"))
    for link in by_id.values():
        if link.row.fate == "new" and link.status == "corrected" and link.id not in correctors:
            _refuse(link.row, "status", "says that it was corrected, and no row of the file corrects it that can go in")
    waiting = [link for link in by_id.values() if link.row.fate == "cannot"]
    while waiting:
        gone = waiting.pop()
        for other, why in beside[gone.id]:
            if other.row.fate == "new":
                _refuse(other.row, "corrects", why.format(line=gone.row.line))
                waiting.append(other)


def _refuse(row: RowFate, header: str, why: str) -> None:
    row.fate, row.problems, row.made = "cannot", ((header, why),), []
