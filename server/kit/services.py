"""What may be done with testers."""

from typing import Any
from uuid import UUID

from django.db import transaction

from crews.models import Crew
from evenprobe.formats import InstrumentEntry, parse
from kit.models import Tester
from project.problems import NotFoundHere, Refused


def tester_of(crew: Crew, tester_id: UUID) -> Tester:
    tester = Tester.objects.filter(crew=crew, id=tester_id).first()
    if tester is None:
        raise NotFoundHere("tester")
    return tester


@transaction.atomic
def put_tester(crew: Crew, tester_id: UUID, entry: dict[str, Any]) -> Tester:
    """Write down a tester, or change what is known of it."""
    checked = parse(InstrumentEntry, {**entry, "id": str(tester_id)})
    existing = Tester.objects.filter(id=tester_id).first()
    if existing is not None and existing.crew_id != crew.id:
        raise Refused(("id", "this id is taken"), status=409)
    tester = existing or Tester(id=tester_id, crew=crew)
    tester.entry = checked.model_dump(mode="json", exclude_none=True, exclude={"id"})
    tester.save()
    return tester
