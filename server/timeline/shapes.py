"""What the line of time gives."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema

from evenprobe.entries.documented import Among

KINDS = (
    "reading", "dead-test", "isolation", "hunt", "round", "visit", "check", "fault", "photo", "sign-off", "file",
    "change",
)  # fmt: skip
OnWord = Annotated[
    str,
    Among(("site", "circuit", "point", "tester", "visit", "reading", "dead-test", "isolation", "hunt", "round")),
]
KindOfRecord = Annotated[str, Among(KINDS)]
ScopeWord = Annotated[str, Among(("point", "circuit", "site", "tester", "crew"))]


class Happened(Schema):
    """One thing on record. `place`, `of`: where it is shown whole. `status`: why it does not stand."""

    id: UUID
    kind: KindOfRecord
    at: datetime
    by: str
    where: str
    text: str
    how: str = ""
    tester: str = ""
    source: str = ""
    status: str = ""
    place: str
    of: UUID
    photos: list[UUID] = []


class TimelineOut(Schema):
    """The latest first. `before`: where the rest begins; none where this is all."""

    name: str
    happened: list[Happened]
    before: datetime | None
    people: list[str]
