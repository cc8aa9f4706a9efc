"""Which files were brought in."""

from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.utils import timezone

from base.problems import Refused
from brought.models import BroughtFile
from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.signing import Link

_LONGEST_NAME = 200


def files_of(crew: Crew) -> QuerySet[BroughtFile]:
    """The latest first."""
    return BroughtFile.objects.filter(crew=crew)


def file_for(
    crew: Crew, author: Author, name: str, what: str, sha256: str, chains: list[list[Link]] | None = None
) -> BroughtFile:
    """The file as somebody brings it in, not written down yet; the same file again is the row of who was first."""
    known = files_of(crew).filter(what=what, sha256=sha256).first()
    return known or BroughtFile(
        crew=crew, name=name[:_LONGEST_NAME], what=what, sha256=sha256, at=timezone.now(),
        chains=[[vars(link) for link in chain] for chain in chains or []],
        by=person_of(author), by_name=name_of(author),
    )  # fmt: skip


def keep(file: BroughtFile) -> BroughtFile:
    """Write it down, if it is not. Raises Refused where somebody else just does."""
    if file._state.adding:
        try:
            with transaction.atomic():
                file.save(force_insert=True)
        except IntegrityError:
            text = "somebody else is bringing this file in; look what it brought and bring it in again"
            raise Refused(("", text), status=409) from None
    return file
