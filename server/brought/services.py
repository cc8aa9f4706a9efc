"""Which files were brought in."""

from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from base.problems import NotFoundHere
from brought.models import BroughtFile
from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.signing import Link

_LONGEST_NAME = 200


def files_of(crew: Crew) -> QuerySet[BroughtFile]:
    """The latest first."""
    return BroughtFile.objects.filter(crew=crew)


def file_of(crew: Crew, file_id: UUID) -> BroughtFile:
    found = files_of(crew).filter(id=file_id).first()
    if found is None:
        raise NotFoundHere("file")
    return found


@transaction.atomic
def put_file(
    crew: Crew, author: Author, name: str, what: str, sha256: str, chains: list[list[Link]] | None = None
) -> BroughtFile:
    """The file is brought in by somebody. The same file again is the same row, by whoever brought it first."""
    known = files_of(crew).filter(what=what, sha256=sha256).first()
    return known or BroughtFile.objects.create(
        crew=crew, name=name[:_LONGEST_NAME], what=what, sha256=sha256, at=timezone.now(),
        chains=[[vars(link) for link in chain] for chain in chains or []],
        by=person_of(author), by_name=name_of(author),
    )  # fmt: skip
