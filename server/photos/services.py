"""Keeping pictures and hanging them on things. A retry is the same picture, not a second."""

import base64
import hashlib
from collections import defaultdict
from collections.abc import Iterable
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from crews.models import Crew
from crews.services import Author, name_of, person_of
from photos.decoding import kind_of
from photos.models import Photo, PhotoOn
from photos.quota import refuse_beyond_quota

_LONGEST_NOTE = 400
_MOST_ASKED = 500
"""Ids of one question; of more all the crew's are looked through."""


def put_photo(crew: Crew, author: Author, photo_id: UUID, image: str, taken_at: datetime | None = None) -> Photo:
    """Keep a picture, given in base 64. The same id with the same picture again changes nothing."""
    try:
        content = base64.b64decode(image, validate=True)
    except ValueError:
        raise Refused(("image", "is not a picture in base 64")) from None
    kind = kind_of(content)
    with transaction.atomic():
        existing = Photo.objects.filter(id=photo_id).first()
        if existing is not None:
            if existing.crew_id != crew.id or bytes(existing.image) != content:
                raise Refused(("id", "this id already belongs to another picture"), status=409)
            return existing
        refuse_beyond_quota(crew, len(content))
        return Photo.objects.create(
            id=photo_id, crew=crew, image=content, kind=kind, sha256=hashlib.sha256(content).hexdigest(),
            taken_at=taken_at or timezone.now(), by_name=name_of(author),
        )  # fmt: skip


def photo_of(crew: Crew, photo_id: UUID) -> Photo:
    photo = Photo.objects.filter(crew=crew, id=photo_id).first()
    if photo is None:
        raise NotFoundHere("picture")
    return photo


@transaction.atomic
def hang(
    crew: Crew,
    author: Author,
    hung_id: UUID,
    photo_id: UUID,
    on: str,
    of: UUID,
    note: str,
    where: dict[str, Any],
    at: datetime | None = None,
) -> PhotoOn:
    """Hang a picture on a thing. `where`: the site, circuit, point or tester it is at."""
    photo = photo_of(crew, photo_id)
    note = note.strip()
    if len(note) > _LONGEST_NOTE:
        raise Refused(("note", f"is longer than {_LONGEST_NOTE} characters"))
    existing = PhotoOn.objects.filter(id=hung_id).first()
    if existing is not None:
        if (existing.photo_id, existing.on, existing.of, existing.note) != (photo.id, on, of, note):
            raise Refused(("id", "this id already belongs to another picture that hangs"), status=409)
        return existing
    return PhotoOn.objects.create(
        id=hung_id, photo=photo, on=on, of=of, note=note, at=at or photo.taken_at,
        by=person_of(author), by_name=name_of(author), **where,
    )  # fmt: skip


def hung_on(crew: Crew, of: Iterable[UUID]) -> dict[UUID, list[PhotoOn]]:
    """What hangs on each of some things, in one query, the images left where they are."""
    found: dict[UUID, list[PhotoOn]] = defaultdict(list)
    wanted = set(of)
    rows = PhotoOn.objects.filter(photo__crew=crew).select_related("photo").defer("photo__image")
    for row in rows.filter(of__in=wanted) if len(wanted) <= _MOST_ASKED else rows:
        if row.of in wanted:
            found[row.of].append(row)
    return found
