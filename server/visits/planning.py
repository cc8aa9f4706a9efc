"""The record as the core plans from it: circuits with their points, and how long works took on them before."""

from collections import defaultdict
from collections.abc import Iterator
from datetime import datetime, timedelta

from evenprobe.planning import Earlier, PlannedCircuit, PlannedPoint, Work
from evenprobe.supplies import SYSTEMS
from evenprobe.wiring import PointKind, Terminal
from sites.models import Point
from visits.on_site import CircuitRecord

_ONE_STRETCH = timedelta(hours=6)
"""What took longer was left lying in between."""
_QUICK_SET = 3
"""Readings that a point is not measured with less of."""
_LAST_READING_MIN = 0.5
"""How long the last reading took, which has no later one to tell."""


def planned_circuit(record: CircuitRecord, before: datetime) -> PlannedCircuit:
    """`before`: only what was done earlier says how long it takes."""
    circuit = record.circuit
    last = next((proof for proof in record.proofs if proof.circuit_id == circuit.id), None)
    return PlannedCircuit(
        id=str(circuit.id),
        name=circuit.name,
        board=circuit.board.name,
        system=SYSTEMS[circuit.board.supply.system],
        points=tuple(_point(point) for point in record.points),
        residual_ma=circuit.residual_ma,
        sources=tuple(source["label"] for source in last.sources) if last else (),
        earlier={work: tuple(of(record, before)) for work, of in _EARLIER.items()},
    )


def _point(point: Point) -> PlannedPoint:
    terminals = tuple(Terminal(t) for t in point.terminals)
    return PlannedPoint(str(point.id), point.name, PointKind(point.kind), terminals, point.room)


def _isolated(record: CircuitRecord, before: datetime) -> Iterator[Earlier]:
    for proof in record.proofs:
        done = [e.at for e in proof.events.all() if e.type == "stated"]
        if proof.circuit_id == record.circuit.id and done and done[0] < before:
            yield from _took(min(proof.begun_at, *(e.at for e in proof.events.all())), done[0])


def _tested_dead(record: CircuitRecord, before: datetime) -> Iterator[Earlier]:
    """Sheets on which every line was tested or left; of one half done nobody knows how long it takes."""
    for sheet in record.sheets:
        times = [entry.at for entry in sheet.entries]
        whole = all(line.id in sheet.taken or line.id in sheet.record.left for line in sheet.lines)
        if whole and len(times) > 1 and times[-1] < before:
            yield from _took(sheet.sheet.begun_at, times[-1])


def _tested_live(record: CircuitRecord, before: datetime) -> Iterator[Earlier]:
    """Days on which every point of the circuit had its quick set, or more."""
    days: dict[object, list[tuple[datetime, datetime]]] = defaultdict(list)
    for point in record.points:
        for count, *ends in point.standing.days or ():
            first, last = map(datetime.fromisoformat, ends)
            if count >= _QUICK_SET and last < before:
                days[first.date()].append((first, last))
    for spans in days.values():
        if len(spans) == len(record.points):
            begun, ended = min(first for first, _ in spans), max(last for _, last in spans)
            yield from _took(begun, ended + timedelta(minutes=_LAST_READING_MIN))


def _took(start: datetime, end: datetime) -> Iterator[Earlier]:
    if timedelta(0) < end - start <= _ONE_STRETCH:
        yield Earlier(start.date(), (end - start).total_seconds() / 60)


_EARLIER = {Work.ISOLATE: _isolated, Work.DEAD_TESTS: _tested_dead, Work.LIVE_TESTS: _tested_live}
