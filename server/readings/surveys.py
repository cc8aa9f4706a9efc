"""Between the record and the survey format: a point, or a site, as the core reads it."""

import hashlib
import json
from collections.abc import Sequence
from functools import cached_property
from typing import Any
from uuid import UUID

from evenprobe.formats import PointEntry, SurveyFile, parse
from evenprobe.quantities import Reading as CoreReading
from evenprobe.wiring import PointFacts
from kit.names import named
from readings.models import Reading
from sheets.evidence import DeadTest, dead_tests, of_point
from sites.models import Point, Site, Supply

Recorded = Reading | DeadTest


def survey_of(site: Site, points: list[Point], *, whole: bool) -> dict[str, Any]:
    """The points as a survey. `whole`: with all that was superseded, and authors and times, for an export;
    otherwise only what counts, the circuit's dead tests with it, so that equal content has an equal survey."""
    readings = list(Reading.objects.filter(point__in=points).select_related("tester", "superseded_by", "supersedes"))
    by_point: dict[Any, list[Recorded]] = {}
    for reading in readings:
        by_point.setdefault(reading.point_id, []).append(reading)
    if not whole:
        for point in points:
            by_point.setdefault(point.id, []).extend(of_point(dead_tests(point.circuit), point))
    instruments, names = _instruments([r for found in by_point.values() for r in found])
    first = points[0].circuit.board.supply if points else site.supplies.first()
    survey: dict[str, Any] = {
        "format": "even-probe/survey",
        "version": 1,
        "practice": site.practice,
        "supply": _supply(first),
        "instruments": instruments,
        "points": [_point(p, first, by_point.get(p.id, []), names, whole) for p in points],
    }
    if whole:
        survey["label"] = site.name
    return survey


def _instruments(readings: Sequence[Recorded]) -> tuple[list[dict[str, Any]], dict[UUID, str]]:
    """The testers as they were when the readings were taken, and which was in the hand at each.

    A tester that changed between two readings stands twice, the second time as `id/2`.
    """
    known: dict[str, list[dict[str, Any]]] = {}
    names = {}
    for reading in readings:
        if reading.tester is None:
            continue
        tester = str(reading.tester.id)
        held = reading.held or reading.tester.entry
        states = known.setdefault(tester, [])
        if held not in states:
            states.append(held)
        names[reading.id] = named(tester, states.index(held))
    return [{"id": named(t, n), **held} for t in sorted(known) for n, held in enumerate(known[t])], names


class PointSurvey:
    """A point as the core reads it: looked up once, and checked once if at all, for whatever is asked of it."""

    def __init__(self, point: Point) -> None:
        self.content = survey_of(point.circuit.board.supply.site, [point], whole=False)

    @cached_property
    def digest(self) -> str:
        """The same for the same content."""
        return hashlib.sha256(json.dumps(self.content, sort_keys=True).encode()).hexdigest()

    @cached_property
    def checked(self) -> SurveyFile:
        return parse(SurveyFile, self.content)

    @cached_property
    def entry(self) -> PointEntry:
        return self.checked.single_point()

    @cached_property
    def facts(self) -> PointFacts:
        return self.checked.facts(self.entry)

    @cached_property
    def readings(self) -> list[CoreReading]:
        return self.checked.readings(self.entry)


def _supply(supply: Supply | None) -> dict[str, str]:
    assert supply is not None
    return {"system": supply.system, "earthing": supply.earthing}


def _point(
    point: Point, first: Supply | None, readings: Sequence[Recorded], names: dict[UUID, str], whole: bool
) -> dict[str, Any]:
    circuit = point.circuit
    facts: dict[str, Any] = {
        "rating_a": circuit.rating_a,
        "conductor": circuit.conductor or None,
        "length_m": point.length_m,
        "residual_ma": circuit.residual_ma,
        "curve": circuit.curve or None,
    }
    entry: dict[str, Any] = {"id": str(point.id), "kind": point.kind, "terminals": point.terminals}
    if whole:
        entry["label"] = point.name
        if point.room:
            entry["room"] = point.room
        facts |= {"label": circuit.name, "board": circuit.board.name}
    entry["circuit"] = {key: value for key, value in facts.items() if value is not None}
    supply = circuit.board.supply
    if _supply(supply) != _supply(first):
        entry["supply"] = _supply(supply)
    entry["readings"] = [_reading(r, names, whole) for r in readings if r.entry is not None and (whole or counts(r))]
    return entry


def counts(reading: Recorded) -> bool:
    """Neither corrected nor withdrawn, nor itself a withdrawal."""
    return reading.entry is not None and not hasattr(reading, "superseded_by")


def _reading(reading: Recorded, names: dict[UUID, str], whole: bool) -> dict[str, Any]:
    entry = {"id": str(reading.id), **reading.entry}
    if reading.id in names:
        entry["instrument"] = names[reading.id]
    if whole and isinstance(reading, Reading):
        entry["at"] = reading.taken_at.isoformat()
        entry["by"] = reading.by_name
        if reading.supersedes_id is not None:
            entry["supersedes"] = str(reading.supersedes_id)
        if hasattr(reading, "superseded_by") and reading.superseded_by.entry is None:
            entry["withdrawn"] = True
    return entry
