"""Recording, correcting, withdrawing, bringing in. Append-only; a retry is the same reading, not a second."""

from datetime import datetime
from typing import Any
from uuid import UUID, uuid5

from django.db import transaction
from django.utils import timezone

from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.formats import FormatError, SurveyFile, parse
from evenprobe.formats.reading import ReadingEntry
from evenprobe.formats.survey import CircuitEntry, PointEntry
from kit.models import Tester
from kit.services import in_hand, tester_meant, tester_of
from project.problems import Refused
from sites.models import Board, Circuit, Point, Site, Supply
from sites.services import find, put_board, put_circuit, put_point, put_site, put_supply
from work.models import Reading
from work.surveys import survey_of


@transaction.atomic
def record(
    crew: Crew,
    author: Author,
    point_id: UUID,
    reading_id: UUID,
    entry: dict[str, Any],
    tester_id: UUID | None,
    supersedes: UUID | None,
    taken_at: datetime | None,
) -> Point:
    """Record one reading at a point. The same id with the same content again changes nothing."""
    point = find(crew, Point, point_id)
    tester = tester_of(crew, tester_id) if tester_id else None
    checked = _checked(point, tester, reading_id, entry)
    _keep(point, author, reading_id, checked, tester, supersedes, taken_at)
    return point


@transaction.atomic
def withdraw(crew: Crew, author: Author, point_id: UUID, withdrawal_id: UUID, reading_id: UUID) -> Point:
    """Take a reading back. It stays in the record and counts no more."""
    point = find(crew, Point, point_id)
    _keep(point, author, withdrawal_id, None, None, reading_id, None)
    return point


def _checked(point: Point, tester: Tester | None, reading_id: UUID, entry: dict[str, Any]) -> dict[str, Any]:
    """The entry as the format writes it. Problems are named by the reading's own keys."""
    site = point.circuit.board.supply.site
    survey = survey_of(site, [point], whole=False)
    full = {**entry, "id": str(reading_id)}
    if tester is not None:
        full["instrument"] = str(tester.id)
        survey["instruments"] = [{"id": str(tester.id), **tester.entry}]
    survey["points"][0]["readings"] = [full]
    try:
        checked = parse(SurveyFile, survey)
    except FormatError as error:
        raise Refused(
            *((path.removeprefix("points[0].readings[0]").lstrip("."), text) for path, text in error.problems)
        ) from None
    return _content(checked.points[0].readings[0])


def _content(reading: ReadingEntry) -> dict[str, Any]:
    """What was seen and how; whose and when it was, and what it corrects, are columns of their own."""
    about = {"id", "instrument", "at", "by", "supersedes", "withdrawn"}
    return reading.model_dump(mode="json", by_alias=True, exclude_none=True, exclude=about)


def _keep(
    point: Point,
    author: Author,
    reading_id: UUID,
    entry: dict[str, Any] | None,
    tester: Tester | None,
    supersedes: UUID | None,
    taken_at: datetime | None,
    by_name: str | None = None,
    held: dict[str, Any] | None = None,
) -> None:
    existing = Reading.objects.filter(id=reading_id).first()
    if existing is not None:
        same = (
            existing.point_id == point.id
            and existing.entry == entry
            and existing.tester_id == (tester.id if tester else None)
            and existing.supersedes_id == supersedes
        )
        if not same:
            raise Refused(("id", "this id already belongs to a reading with other content"), status=409)
        return
    corrected = None
    if supersedes is not None:
        corrected = Reading.objects.filter(id=supersedes, point=point).first()
        if corrected is None:
            raise Refused(("supersedes", "no such reading at this point"))
        if hasattr(corrected, "superseded_by"):
            raise Refused(("supersedes", "this reading was already corrected or withdrawn"), status=409)
        if corrected.entry is None:
            raise Refused(("supersedes", "a withdrawal cannot be corrected; record the reading again"))
    when = taken_at or timezone.now()
    Reading.objects.create(
        id=reading_id,
        point=point,
        entry=entry,
        tester=tester,
        supersedes=corrected,
        held=held or (_held(tester, when) if tester else None),
        taken_at=when,
        by=person_of(author),
        by_name=name_of(author) if by_name is None else by_name,
    )


def _held(tester: Tester, at: datetime) -> dict[str, Any]:
    """What was in the hand, as it was then: later changes to the register change no reading."""
    return in_hand(tester, at).model_dump(mode="json", exclude_defaults=True, exclude={"id"})


@transaction.atomic
def bring_in(crew: Crew, author: Author, site_id: UUID, name: str, data: Any) -> Site:
    """A survey file into a site, which is made if it is not there. Bringing the same file again changes nothing.

    Raises FormatError with the paths of the file, and writes nothing at all then.
    """
    survey = parse(SurveyFile, data)
    existing = Site.objects.filter(crew=crew, id=site_id).first()
    if existing is not None and existing.practice != survey.practice:
        raise Refused(("practice", f"this site is {existing.practice}; the file is {survey.practice}"))
    wanted = existing.name if existing else name or survey.label or "Brought in"
    site = put_site(crew, site_id, wanted, str(survey.practice))
    testers = {i.id: tester_meant(crew, site.id, i) for i in survey.instruments}
    brought = {i.id: i.model_dump(mode="json", exclude_defaults=True, exclude={"id"}) for i in survey.instruments}
    for index, entry in enumerate(survey.points):
        point = _place(crew, site, survey, entry)
        ids = {r.id: _own_id(point, Reading, r.id) for r in entry.readings if r.id}
        for number, reading in _corrected_first(index, entry):
            path = f"points[{index}].readings[{number}]"
            content = _content(reading)
            reading_id = ids[reading.id] if reading.id else uuid5(point.id, f"{number}:{content}")
            try:
                _keep(
                    point, author, reading_id, content,
                    testers[reading.instrument] if reading.instrument else None,
                    ids[reading.supersedes] if reading.supersedes else None,
                    reading.at, reading.by,
                    held=brought.get(reading.instrument or ""),
                )  # fmt: skip
                if reading.withdrawn:
                    _keep(point, author, uuid5(reading_id, "withdrawn"), None, None, reading_id, reading.at)
            except Refused as error:
                raise Refused(*((f"{path}.{key}", text) for key, text in error.problems), status=error.status) from None
    return site


def _corrected_first(index: int, point: PointEntry) -> list[tuple[int, ReadingEntry]]:
    """A point's readings with their places in the file, each after the one it corrects."""
    waiting, ordered, named = list(enumerate(point.readings)), [], set[str | None]({None})
    while waiting:
        ready = [(n, r) for n, r in waiting if r.supersedes in named]
        if not ready:
            number, reading = waiting[0]
            path = f"points[{index}].readings[{number}].supersedes"
            raise Refused((path, f"{reading.supersedes!r} is not in the file before it, or goes in a circle"))
        ordered += ready
        named |= {r.id for _, r in ready}
        waiting = [entry for entry in waiting if entry not in ready]
    return ordered


def _own_id(under: Site | Point, model: type[Any], written: str) -> UUID:
    """The record a file's id means: the crew's own of that id, or one derived from where it is brought in."""
    try:
        meant = UUID(written)
    except ValueError:
        return uuid5(under.id, written)
    if isinstance(under, Point):
        foreign = model.objects.filter(id=meant).exclude(point=under).exists()
    else:
        foreign = model.objects.filter(id=meant).exclude(circuit__board__supply__site=under).exists()
    return uuid5(under.id, written) if foreign else meant


def _place(crew: Crew, site: Site, survey: SurveyFile, entry: PointEntry) -> Point:
    """The point of a file's entry, with the supply, board and circuit it hangs on."""
    point_id = _own_id(site, Point, entry.id)
    there = Point.objects.filter(id=point_id).first()
    if there is not None:
        return there
    supply_entry = entry.supply or survey.supply
    system, earthing = supply_entry.system, str(supply_entry.earthing)
    supply = Supply.objects.filter(site=site, system=system, earthing=earthing).first() or put_supply(
        crew,
        uuid5(site.id, f"supply {system} {earthing}"),
        site.id,
        f"{system} V, {earthing}",
        system,
        earthing,
    )
    known = entry.circuit or CircuitEntry()
    board_name = known.board or "Board"
    board = Board.objects.filter(supply=supply, name=board_name).first() or put_board(
        crew, uuid5(supply.id, f"board {board_name}"), supply.id, board_name
    )
    circuit_name = known.label or "Circuit"
    alike = Circuit.objects.filter(
        board=board,
        name=circuit_name,
        rating_a=known.rating_a,
        conductor=known.conductor or "",
        residual_ma=known.residual_ma,
        curve=known.curve or "",
    )
    more = "".join(f" {one}" for one in (known.residual_ma, known.curve) if one)
    circuit = alike.first() or put_circuit(
        crew,
        uuid5(board.id, f"circuit {circuit_name} {known.rating_a} {known.conductor}{more}"),
        board.id,
        circuit_name,
        known.rating_a,
        known.conductor,
        known.residual_ma,
        known.curve,
    )
    return put_point(
        crew, point_id, circuit.id, entry.label or entry.id, str(entry.kind),
        [str(t) for t in entry.terminals], known.length_m, entry.room or "",
    )  # fmt: skip
