"""A point as one request has it: looked up once, each reading parsed once, for whatever is asked of it."""

import hashlib
import json
from datetime import datetime
from functools import cached_property
from typing import Any
from uuid import UUID

from django.db.models import Prefetch, QuerySet

from crews.models import Crew
from evenprobe.formats import InstrumentEntry, PointEntry, ReadingEntry, SurveyFile, parse, reading_at
from evenprobe.quantities import Reading as CoreReading
from evenprobe.wiring import PointFacts
from readings.models import Reading
from readings.surveys import counts, survey_of
from sheets.evidence import DeadTest, dead_tests, of_point
from sheets.records import of_circuit
from sites.models import Point, Site
from sites.services import find


def with_record(points: QuerySet[Point]) -> QuerySet[Point]:
    """The points with all that is on record of each, in as many queries for a hundred as for one."""
    return with_readings(points).prefetch_related(*of_circuit("circuit"))


def with_readings(points: QuerySet[Point]) -> QuerySet[Point]:
    """With no more than was read at them."""
    return _with_readings(points, Reading.objects.all())


def with_readings_since(points: QuerySet[Point], since: datetime) -> QuerySet[Point]:
    """The same for a `PartOfAView`."""
    return _with_readings(points, Reading.objects.filter(recorded_at__gte=since))


def _with_readings(points: QuerySet[Point], readings: QuerySet[Reading]) -> QuerySet[Point]:
    return points.select_related("circuit__board__supply__site__crew", "brought", "standing").prefetch_related(
        Prefetch("readings", readings.select_related("tester", "superseded_by", "brought"))
    )


def view_of(crew: Crew, point_id: UUID) -> "PointView":
    """The crew's own point. Raises NotFoundHere for anybody else's."""
    return PointView(find(crew, Point, point_id, with_record))


class PointView:
    """Of a point from `with_record`. What is recorded meanwhile is added with `add`, before anything is asked."""

    def __init__(self, point: Point) -> None:
        self.point = point
        self.site: Site = point.circuit.board.supply.site
        self._checked_before: dict[str, ReadingEntry] = {}
        self._added = 0

    @cached_property
    def rows(self) -> list[Reading]:
        """All that was recorded here, what was superseded and the withdrawals among it, in order of time."""
        return list(self.point.readings.all())

    @cached_property
    def dead_tests(self) -> list[DeadTest]:
        """Of the circuit's sheets, those that count here."""
        return of_point(dead_tests(self.point.circuit), self.point)

    def check(self, data: dict[str, Any], tester: InstrumentEntry | None) -> ReadingEntry:
        """A reading that is to be recorded here. Raises FormatError with its own keys."""
        checked = reading_at(self._frame.single_point(), data, tester)
        self._checked_before[str(checked.id)] = checked
        return checked

    @property
    def changes(self) -> int:
        """How many of the changes that its answer hangs on this is made of."""
        return self.point.standing.changes + self._added

    def add(self, row: Reading) -> None:
        """What was just recorded, a correction or a withdrawal among it."""
        self._added += 1
        self.rows = sorted([*self.rows, row], key=lambda r: (r.taken_at, r.recorded_at, r.id))
        for corrected in self.rows:
            if corrected.id == row.supersedes_id:
                corrected.superseded_by = row

    @cached_property
    def _frame(self) -> SurveyFile:
        """Where the point is and hangs, without readings."""
        return parse(SurveyFile, survey_of(self.site, {self.point: []}, whole=False))

    @cached_property
    def content(self) -> dict[str, Any]:
        """What counts, as a survey of this point."""
        return survey_of(self.site, {self.point: [*self.rows, *self.dead_tests]}, whole=False)

    @cached_property
    def survey(self) -> str:
        """The same as JSON."""
        return json.dumps(self.content, sort_keys=True)

    @cached_property
    def digest(self) -> str:
        """The same for the same content."""
        return hashlib.sha256(self.survey.encode()).hexdigest()

    @property
    def sort(self) -> str:
        """The same for points that are described alike."""
        return repr(self.facts)

    @cached_property
    def checked(self) -> SurveyFile:
        """The same as the core reads it."""
        instruments = {i["id"]: parse(InstrumentEntry, i) for i in self.content["instruments"]}
        [written] = self.content["points"]
        point = self._frame.single_point()
        readings = [self._parsed(point, data, instruments) for data in written["readings"]]
        whole = point.model_copy(update={"readings": readings})
        return self._frame.model_copy(update={"instruments": list(instruments.values()), "points": [whole]})

    def _parsed(self, point: PointEntry, data: dict[str, Any], instruments: dict[str, InstrumentEntry]) -> ReadingEntry:
        instrument = data.get("instrument")
        before = self._checked_before.get(data["id"])
        if before is not None:
            return before.model_copy(update={"instrument": instrument, "at": datetime.fromisoformat(data["at"])})
        return reading_at(point, data, instruments[instrument] if instrument else None)

    @cached_property
    def entry(self) -> PointEntry:
        return self.checked.single_point()

    @cached_property
    def facts(self) -> PointFacts:
        return self._frame.facts(self._frame.single_point())

    @cached_property
    def readings(self) -> list[CoreReading]:
        return self.checked.readings(self.entry)

    def counting(self) -> dict[str, Reading]:
        """The rows that count, by the id the core has of each."""
        return {str(row.id): row for row in self.rows if counts(row)}


class PartOfAView(PointView):
    """Of a point from `with_readings_since`: what was read there from then on, by which nothing is interpreted."""

    @property
    def dead_tests(self) -> list[DeadTest]:
        return []
