"""What the overviews give."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema

from evenprobe.entries.documented import WrittenAs
from evenprobe.formats.answers import FindingOut
from evenprobe.formats.kit import CheckEntry
from evenprobe.formats.words import PlaceWord, PracticeWord, PurposeWord, SystemWord
from kit.shapes import TesterOut


class ItemOut(Schema):
    id: str
    asks: str
    how: str
    good: str
    bad: str
    unit: str


class CheckOut(Schema):
    at: datetime
    by: str
    entry: Annotated[dict[str, Any], WrittenAs(CheckEntry)]
    in_force: bool


class FitOut(Schema):
    practice: PracticeWord
    system: SystemWord
    system_title: str
    purpose: PurposeWord
    place: PlaceWord
    fit: bool
    problems: list[FindingOut]
    warnings: list[FindingOut]


class LastProof(Schema):
    at: datetime
    good: bool
    said: str
    proof: UUID
    proof_name: str


class TesterPage(Schema):
    tester: TesterOut
    says: str
    blind_to: list[str]
    fits: list[FitOut]
    items: list[ItemOut]
    checks: list[CheckOut]
    last_proof: LastProof | None
