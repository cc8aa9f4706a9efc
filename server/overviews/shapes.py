"""What the overviews give."""

from datetime import datetime
from typing import Any
from uuid import UUID

from ninja import Schema

from evenprobe.formats.answers import FindingOut
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
    entry: dict[str, Any]
    in_force: bool


class FitOut(Schema):
    practice: str
    system: str
    system_title: str
    purpose: str
    place: str
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
