"""A survey file into a site: everything is checked first, without holding anybody up, then written in short steps.

Ids follow from the file, so what was cut off half-way is finished by bringing the same file again, and bringing a file
that is there changes nothing.
"""

from collections.abc import Iterable, Iterator, Sequence
from datetime import datetime
from itertools import islice
from typing import Any, TypeVar
from uuid import UUID, uuid5

from django.db import IntegrityError, models, transaction
from django.utils import timezone

from base.clocks import still_to_come
from base.problems import Refused
from brought.models import BroughtFile
from brought.services import file_for, keep
from crews.models import Crew
from crews.services import Author
from evenprobe.formats import SurveyFile, parse
from evenprobe.formats.reading import ReadingEntry
from evenprobe.formats.survey import CircuitEntry, PointEntry
from evenprobe.signing import digest
from kit.hands import Hands
from kit.models import Tester
from kit.services import tester_id_meant, tester_meant
from kit.strangers import unlisted
from readings.hung_on import Plan, Structure, name_at
from readings.models import Reading
from readings.services import content_of
from sites.models import Board, Circuit, Point, Site, Supply
from sites.services import put_site

_AT_A_TIME = 250
"""Rows of one transaction, and ids of one question: nobody who writes waits long for either."""


Row = TypeVar("Row", bound=models.Model)
Item = TypeVar("Item")


def bring_in(crew: Crew, author: Author, site_id: UUID, name: str, data: Any) -> Site:
    """The site, made if it is not there.

    Raises FormatError or Refused with the paths of the file, and writes nothing at all then.
    """
    survey = parse(SurveyFile, data)
    existing = Site.objects.filter(id=site_id).first()
    if existing is not None and existing.crew_id != crew.id:
        raise Refused(("id", "this id is taken"), status=409)
    if existing is not None and existing.practice != survey.practice.id:
        raise Refused(("practice", f"this site is {existing.practice}; the file is {survey.practice}"))
    wanted = existing.name if existing else name_at("name", name or survey.label or "Brought in")
    file = file_for(crew, author, wanted, "survey", digest(data))
    plan = _Checking(crew, file, existing or Site(id=site_id, crew=crew), survey).plan()
    with transaction.atomic():
        keep(file)
        site = put_site(crew, site_id, wanted, str(survey.practice))
        if existing is None:
            site.brought = file
            site.save()
        plan.came_from(file)
        for instrument in survey.instruments:
            tester_meant(crew, site_id, instrument, file)
        _write(Supply, plan.supplies)
        _write(Board, plan.boards)
        _write(Circuit, plan.circuits)
    for rows in _batches(plan.points.items()):
        with transaction.atomic():
            _write(Point, dict(rows))
    for some in _batches(plan.readings.items()):
        with transaction.atomic():
            _write(Reading, dict(some))
    return site


def _write(model: type[Row], rows: dict[UUID, Row]) -> None:
    """Those that nobody has written since they were looked for."""
    there = set(model._default_manager.filter(id__in=rows).values_list("id", flat=True))
    try:
        model._default_manager.bulk_create([row for id_, row in rows.items() if id_ not in there])
    except IntegrityError:
        text = "somebody else changed this site meanwhile; bring the same file again"
        raise Refused(("", text), status=409) from None


class _Checking:
    """The file held against the record, which is only read."""

    def __init__(self, crew: Crew, file: BroughtFile, site: Site, survey: SurveyFile) -> None:
        self.crew, self.file, self.site, self.survey = crew, file, site, survey
        self.now = timezone.now()
        self.found = Plan()
        self.superseded: set[UUID | None] = set()
        self.testers = {i.id: tester_id_meant(crew, site.id, i) for i in survey.instruments}
        self.held = {i.id: i.model_dump(mode="json", exclude_defaults=True, exclude={"id"}) for i in survey.instruments}
        self.own = {tester.id: tester for tester in Tester.objects.filter(crew=crew, id__in=self.testers.values())}
        self.hands = Hands(crew, self.now)

    def plan(self) -> Plan:
        places = dict(self._places())
        written = {i: [_as_id(r.id) for r in p.readings] for i, p in enumerate(self.survey.points)}
        ids = [id_ for own in written.values() for id_ in own if id_ is not None]
        at_point = dict(_looked_up(Reading.objects.values_list("id", "point_id"), ids))
        wanted: list[tuple[str, UUID, Point, ReadingEntry, dict[str, UUID]]] = []
        for index, entry in enumerate(self.survey.points):
            point = places[index]
            own = {r.id: _own_id(point.id, r.id, at_point, point.id) for r in entry.readings if r.id}
            for number, reading in _corrected_first(index, entry):
                id_ = own[reading.id] if reading.id else uuid5(point.id, f"{number}:{content_of(reading)}")
                wanted.append((f"points[{index}].readings[{number}]", id_, point, reading, own))
        known = self._known([id_ for _, id_, *_ in wanted])
        for path, id_, point, reading, own in wanted:
            self._reading(path, id_, point, reading, own, known)
        return self.found

    def _known(self, ids: Sequence[UUID]) -> dict[UUID, Reading]:
        """Readings of these ids that are on record, and those that correct or withdraw one of them."""
        withdrawals = [uuid5(id_, "withdrawn") for id_ in ids]
        rows = Reading.objects.all()
        found = [*_asked(rows, "id", [*ids, *withdrawals]), *_asked(rows, "supersedes_id", ids)]
        self.superseded = {row.supersedes_id for row in found}
        return {row.id: row for row in found}

    def _reading(
        self,
        path: str,
        id_: UUID,
        point: Point,
        reading: ReadingEntry,
        own: dict[str, UUID],
        known: dict[UUID, Reading],
    ) -> None:
        if wrong := still_to_come(reading.at, self.now):
            raise Refused((f"{path}.at", wrong))
        supersedes = own[reading.supersedes] if reading.supersedes else None
        row = self._row(id_, point, content_of(reading), supersedes, reading)
        self._keep(path, row, known)
        if reading.withdrawn:
            self._keep(path, self._row(uuid5(id_, "withdrawn"), point, None, id_, reading), known)

    def _row(
        self, id_: UUID, point: Point, content: dict[str, Any] | None, supersedes: UUID | None, reading: ReadingEntry
    ) -> Reading:
        instrument = reading.instrument if content is not None else None
        tester, at = self.testers[instrument] if instrument else None, reading.at or self.now
        return Reading(
            id=id_,
            point_id=point.id,
            entry=content,
            tester_id=tester,
            held=None if content is None else self._held(instrument, tester, content, at),
            supersedes_id=supersedes,
            taken_at=at,
            brought=self.file,
            by_name=self.file.marked((reading.by or "")[:160]),
        )

    def _held(
        self, instrument: str | None, tester: UUID | None, content: dict[str, Any], at: datetime
    ) -> dict[str, Any] | None:
        """A tester of the crew's own is what this record knows of it, whatever a file says."""
        if instrument is None or tester is None:
            return unlisted(str(content["quantity"]), None)
        own = self.own.get(tester)
        if own is None or own.is_strange:
            return self.held[instrument]
        return self.hands.kept(own, at)

    def _keep(self, path: str, row: Reading, known: dict[UUID, Reading]) -> None:
        there = known.get(row.id)
        if there is not None:
            told = [(r.point_id, r.entry, r.tester_id, r.supersedes_id) for r in (there, row)]
            if told[0] != told[1]:
                text = "this id already belongs to a reading with other content"
                raise Refused((f"{path}.id", text), status=409)
            return
        if row.supersedes_id is not None:
            self._correctable(path, row, known)
        known[row.id] = self.found.readings[row.id] = row
        self.superseded.add(row.supersedes_id)

    def _correctable(self, path: str, row: Reading, known: dict[UUID, Reading]) -> None:
        corrected = known.get(row.supersedes_id) if row.supersedes_id else None
        if corrected is None or corrected.point_id != row.point_id:
            raise Refused((f"{path}.supersedes", "no such reading at this point"))
        if corrected.id in self.superseded:
            text = "this reading was already corrected or withdrawn"
            raise Refused((f"{path}.supersedes", text), status=409)

    def _places(self) -> Iterator[tuple[int, Point]]:
        """The point of each of the file's entries, with the supply, board and circuit it hangs on."""
        written = [_as_id(entry.id) for entry in self.survey.points]
        under = Point.objects.values_list("id", "circuit__board__supply__site_id")
        at_site = dict(_looked_up(under, [id_ for id_ in written if id_ is not None]))
        ids = [_own_id(self.site.id, e.id, at_site, self.site.id) for e in self.survey.points]
        there = {point.id: point for point in _asked(Point.objects.all(), "id", ids)}
        self._structure = Structure(self.site, self.found)
        for index, (id_, entry) in enumerate(zip(ids, self.survey.points, strict=True)):
            yield index, there.get(id_) or self._point(f"points[{index}]", id_, entry)

    def _point(self, path: str, id_: UUID, entry: PointEntry) -> Point:
        supply = entry.supply or self.survey.supply
        known = entry.circuit or CircuitEntry()
        circuit = self._structure.circuit(path, supply.system, str(supply.earthing), known)
        point = Point(
            id=id_,
            circuit=circuit,
            name=name_at(f"{path}.label", entry.label or entry.id),
            kind=str(entry.kind),
            terminals=[str(t) for t in entry.terminals],
            length_m=known.length_m,
            room=(entry.room or "").strip(),
            position=self._structure.next_position(circuit),
        )
        self.found.points[id_] = point
        return point


def _batches(items: Iterable[Item]) -> Iterator[list[Item]]:
    waiting = iter(items)
    while batch := list(islice(waiting, _AT_A_TIME)):
        yield batch


def _asked(rows: models.QuerySet[Row], key: str, values: Sequence[UUID]) -> Iterator[Row]:
    for some in _batches(values):
        yield from rows.filter(**{f"{key}__in": some})


def _looked_up(rows: Any, ids: Sequence[UUID]) -> Iterator[tuple[UUID, UUID]]:
    for some in _batches(ids):
        yield from rows.filter(id__in=some)


def _as_id(written: str | None) -> UUID | None:
    try:
        return UUID(written) if written else None
    except ValueError:
        return None


def _own_id(under: UUID, written: str, hangs_on: dict[UUID, UUID], own: UUID) -> UUID:
    """The record a file's id means: the crew's own of that id, or one derived from where it is brought in."""
    meant = _as_id(written)
    if meant is None or hangs_on.get(meant, own) != own:
        return uuid5(under, written)
    return meant


def _corrected_first(index: int, point: PointEntry) -> Iterable[tuple[int, ReadingEntry]]:
    """A point's readings with their places in the file, each after the one it corrects."""
    waiting, ordered, named = list(enumerate(point.readings)), [], set[str | None]({None})
    while waiting:
        ready = [(n, r) for n, r in waiting if r.supersedes in named]
        if not ready:
            number, reading = waiting[0]
            path = f"points[{index}].readings[{number}].supersedes"
            raise Refused((path, f"{reading.supersedes!r} is not in the file before it, or goes in a circle"))
        taken = {n for n, _ in ready}
        ordered += ready
        named |= {r.id for _, r in ready}
        waiting = [entry for entry in waiting if entry[0] not in taken]
    return ordered
