"""Recording, correcting, withdrawing. Append-only; a retry is the same reading, not a second."""

from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from base.problems import Refused
from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.formats import FormatError, SurveyFile, parse
from evenprobe.formats.reading import ReadingEntry
from kit.models import Tester
from kit.services import in_hand, tester_of
from readings.models import Reading
from readings.surveys import survey_of
from sites.models import Point
from sites.services import find


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
    return content_of(checked.points[0].readings[0])


def content_of(reading: ReadingEntry) -> dict[str, Any]:
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
        held=_held(tester, when) if tester else None,
        taken_at=when,
        by=person_of(author),
        by_name=name_of(author),
    )


def _held(tester: Tester, at: datetime) -> dict[str, Any]:
    """What was in the hand, as it was then: later changes to the register change no reading."""
    return in_hand(tester, at).model_dump(mode="json", exclude_defaults=True, exclude={"id"})
