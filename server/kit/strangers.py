"""Testers known from a file alone: what they show may warn and confirms nothing until the crew says they are its own.

One the file names and the kit does not, `held` of a reading says so itself.
"""

from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from crews.models import Crew
from crews.services import Author, name_of
from evenprobe.quantities import QUANTITIES
from evenprobe.testers.kinds import KINDS
from kit.models import Tester
from kit.services import tester_of

STRANGE = "came from a file, and nobody here has said that it is yours"
_USUAL = "multimeter"
UNLISTED = "the file names no tester of your kit"


def unlisted(quantity: str, held: dict[str, Any] | None) -> dict[str, Any]:
    """What a reading was taken with that names no tester of the kit: what can show such a quantity."""
    wanted = {function.id for function in QUANTITIES[quantity].functions}
    able = (kind.id for kind in KINDS.values() if wanted & set(kind.functions))
    return {**(held or {"kind": next(able, _USUAL)}), "known_issue": UNLISTED}


def as_in_the_file(held: dict[str, Any] | None) -> dict[str, Any] | None:
    """The same as it was before: nothing, where it names nothing."""
    if held is None or held.get("known_issue") != UNLISTED or "label" in held:
        return held
    return None


@transaction.atomic
def take_over(crew: Crew, author: Author, tester_id: UUID) -> Tester:
    """Somebody says that a tester from a file is the crew's. The same again changes nothing."""
    tester = tester_of(crew, tester_id)
    if tester.is_strange:
        tester.taken_over_at, tester.taken_over_by = timezone.now(), name_of(author)
        tester.save()
    return tester
