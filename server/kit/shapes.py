"""What the kit's routes take and give."""

from datetime import date, datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema

from evenprobe.entries.documented import Among, WrittenAs
from evenprobe.formats.answers import FindingOut, FitnessOut, RatingOut
from evenprobe.formats.kit import CheckEntry
from evenprobe.formats.words import CategoryWord, KindWord, PlaceWord, PracticeWord, PurposeWord, SystemWord
from kit.models import Part

RoleWord = Annotated[str, Among(Part.Role.values)]


class TesterOut(Schema):
    """`entry`: as the register has it. `attention`: what is wrong with it wherever it is used."""

    id: UUID
    label: str
    kind: str
    kind_name: str
    proved: bool | None
    rated_v: float | None
    category: CategoryWord | None
    low_z: bool
    plugs_in: bool
    stepped: bool
    goes_round: bool
    steps_v: list[float]
    usual_leads: UUID | None
    checked_at: datetime | None
    attention: list[FindingOut]
    entry: dict[str, Any]


class PartOut(Schema):
    id: UUID
    role: RoleWord
    label: str
    category: CategoryWord | None
    rated_v: float | None
    tip_covers: bool | None
    damage: bool
    ohm: float | None


class TesterIn(Schema):
    """None: not recorded."""

    label: str
    kind: KindWord
    proved: bool | None = None
    rated_v: float | None = None
    category: CategoryWord | None = None
    steps_v: list[float] | None = None
    functions: list[str] | None = None
    input_ohm: float | None = None
    accuracy_percent: float | None = None
    accuracy_counts: float | None = None
    resolution: float | None = None
    test_ma: float | None = None
    test_v: list[float] | None = None
    always_on_light: bool | None = None
    calibration_due: date | None = None
    known_issue: str | None = None
    damage: bool | None = None
    fuse: str | None = None
    usual_leads: UUID | None = None
    retired: bool = False


class PartIn(Schema):
    role: RoleWord
    label: str
    category: CategoryWord | None = None
    rated_v: float | None = None
    tip_covers: bool | None = None
    damage: bool | None = None
    ohm: float | None = None
    retired: bool = False


class CheckIn(Schema):
    """By item: good or bad, ohms for the leads; what was not looked at is left out."""

    entry: Annotated[dict[str, Any], WrittenAs(CheckEntry)]


class HoldingIn(Schema):
    """`tip_covers`: as they are in the hand now, whatever the register says."""

    leads: UUID | None = None
    adapters: list[UUID] = []
    tip_covers: bool | None = None
    practice: PracticeWord
    purpose: PurposeWord
    place: PlaceWord
    system: SystemWord


class HoldingOut(FitnessOut):
    """`needs`: what the place asks for at least."""

    needs: RatingOut
