"""Recording, correcting, withdrawing. Append-only; a retry is the same reading, not a second."""

from datetime import datetime
from typing import Any
from uuid import UUID, uuid4

from django.db import transaction
from django.utils import timezone

from base.problems import Refused
from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.formats import InstrumentEntry
from evenprobe.formats.reading import ReadingEntry
from kit.hands import Hands
from kit.models import Tester
from readings.models import Reading
from readings.point_view import PointView, view_of


@transaction.atomic
def record(
    crew: Crew,
    author: Author,
    point_id: UUID,
    reading_id: UUID,
    entry: dict[str, Any],
    tester_id: UUID | None = None,
    supersedes: UUID | None = None,
    taken_at: datetime | None = None,
    hands: Hands | None = None,
) -> PointView:
    """Record one reading at a point, which is given as it then is.

    The same id with the same content again changes nothing. `hands`: the crew's, if they were looked up already.
    """
    view = view_of(crew, point_id)
    when = taken_at or timezone.now()
    hands = hands or Hands(crew, when)
    content, tester, held = _seen(view, reading_id, entry, tester_id, hands, when)
    _keep(view, author, reading_id, content, tester, held, supersedes, when)
    return view


def as_if_recorded(
    crew: Crew, author: Author, point_id: UUID, entry: dict[str, Any], tester_id: UUID | None, supersedes: UUID | None
) -> PointView:
    """The point as it would be with one more reading. Nothing is kept."""
    view = view_of(crew, point_id)
    now = timezone.now()
    reading_id = uuid4()
    content, tester, held = _seen(view, reading_id, entry, tester_id, Hands(crew, now), now)
    view.add(_row(view, author, reading_id, content, tester, held, supersedes, now))
    return view


def _seen(
    view: PointView, reading_id: UUID, entry: dict[str, Any], tester_id: UUID | None, hands: Hands, when: datetime
) -> tuple[dict[str, Any], Tester | None, InstrumentEntry | None]:
    """What was seen, checked; with which tester, and as it is held at that time."""
    tester = hands.tester(tester_id) if tester_id else None
    held = hands.holding(tester, when) if tester else None
    checked = view.check({**entry, "id": str(reading_id), **({"instrument": held.id} if held else {})}, held)
    return content_of(checked), tester, held


@transaction.atomic
def withdraw(crew: Crew, author: Author, point_id: UUID, withdrawal_id: UUID, reading_id: UUID) -> PointView:
    """Take a reading back. It stays in the record and counts no more."""
    view = view_of(crew, point_id)
    _keep(view, author, withdrawal_id, None, None, None, reading_id, timezone.now())
    return view


def content_of(reading: ReadingEntry) -> dict[str, Any]:
    """What was seen and how; whose and when it was, and what it corrects, are columns of their own."""
    about = {"id", "instrument", "at", "by", "supersedes", "withdrawn"}
    return reading.model_dump(mode="json", by_alias=True, exclude_none=True, exclude=about)


def _keep(
    view: PointView,
    author: Author,
    reading_id: UUID,
    entry: dict[str, Any] | None,
    tester: Tester | None,
    held: InstrumentEntry | None,
    supersedes: UUID | None,
    when: datetime,
) -> None:
    existing = Reading.objects.filter(id=reading_id).first()
    if existing is not None:
        same = (
            existing.point_id == view.point.id
            and existing.entry == entry
            and existing.tester_id == (tester.id if tester else None)
            and existing.supersedes_id == supersedes
        )
        if not same:
            raise Refused(("id", "this id already belongs to a reading with other content"), status=409)
        return
    row = _row(view, author, reading_id, entry, tester, held, supersedes, when)
    row.save(force_insert=True)
    view.add(row)


def _row(
    view: PointView,
    author: Author,
    reading_id: UUID,
    entry: dict[str, Any] | None,
    tester: Tester | None,
    held: InstrumentEntry | None,
    supersedes: UUID | None,
    when: datetime,
) -> Reading:
    return Reading(
        id=reading_id,
        point=view.point,
        entry=entry,
        tester=tester,
        supersedes=_corrected(view, supersedes),
        held=held.model_dump(mode="json", exclude_defaults=True, exclude={"id"}) if held else None,
        taken_at=when,
        by=person_of(author),
        by_name=name_of(author),
    )


def _corrected(view: PointView, supersedes: UUID | None) -> Reading | None:
    if supersedes is None:
        return None
    corrected = next((row for row in view.rows if row.id == supersedes), None)
    if corrected is None:
        raise Refused(("supersedes", "no such reading at this point"))
    if hasattr(corrected, "superseded_by"):
        raise Refused(("supersedes", "this reading was already corrected or withdrawn"), status=409)
    if corrected.entry is None:
        raise Refused(("supersedes", "a withdrawal cannot be corrected; record the reading again"))
    return corrected
