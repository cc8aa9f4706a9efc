"""What the routes of sign-offs take and give."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema

from base.shapes import Named
from evenprobe.entries.documented import Among
from evenprobe.formats.signed import SignedContent

WhatWord = Annotated[str, Among(("circuit", "site", "visit"))]


class SignOffLine(Schema):
    """`link_sha256`: what a printed report names it by."""

    id: UUID
    number: int
    what: WhatWord
    of: UUID
    name: str
    site: Named
    signed_at: datetime
    by: str
    link_sha256: str


class SignOffOut(SignOffLine):
    content: SignedContent


class DraftOut(Schema):
    """What would be signed now, and by which name."""

    name: str
    content: SignedContent


class SignIn(Schema):
    """`whys`: why each of what was not tested was not, by its id."""

    what: WhatWord
    of: UUID
    typed_name: str
    whys: dict[str, str] = {}
    remarks: str = ""
