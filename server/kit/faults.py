"""A tester found faulty: from when it is suspect, what it showed may still warn and confirms nothing any more."""

from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from base.problems import Refused
from crews.models import Crew
from crews.services import Author, name_of, person_of
from kit.models import Tester, TesterFault
from kit.services import tester_of
from kit.strangers import STRANGE

_LONGEST = 400
_SAID = "found faulty: {fault}; what it showed since {since:%Y-%m-%d %H:%M} UTC confirms nothing"


def as_known(held: dict[str, Any], tester: Tester, at: datetime) -> dict[str, Any]:
    """A tester as it was in the hand at a time, with what was found of it since."""
    if tester.suspect_from is None or at < tester.suspect_from:
        return {**held, "known_issue": STRANGE} if tester.is_strange else held
    return {**held, "known_issue": _SAID.format(fault=tester.fault, since=tester.suspect_from)}


@transaction.atomic
def found_faulty(
    crew: Crew, author: Author, tester_id: UUID, fault_id: UUID, what: str, since: datetime | None
) -> Tester:
    """Keep what was found; no `since`: it is good after all. The same id with the same content changes nothing."""
    tester = tester_of(crew, tester_id)
    what = what.strip()
    if not what or len(what) > _LONGEST:
        raise Refused(("what", f"say in a few words what is wrong with it, in {_LONGEST} letters or less"))
    if since is not None and since > timezone.now():
        raise Refused(("since", "is still to come"))
    existing = TesterFault.objects.filter(id=fault_id).first()
    if existing is not None:
        if (existing.tester_id, existing.what, existing.since) != (tester.id, what, since):
            raise Refused(("id", "this id already belongs to another fault"), status=409)
        return tester
    TesterFault.objects.create(
        id=fault_id, tester=tester, since=since, what=what, at=timezone.now(),
        by=person_of(author), by_name=name_of(author),
    )  # fmt: skip
    tester.suspect_from, tester.fault = since, what if since else ""
    tester.save()
    return tester
