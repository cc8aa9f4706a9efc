"""What the overviews give."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema

from evenprobe.entries import Time
from evenprobe.entries.documented import WrittenAs
from evenprobe.formats.answers import FindingOut
from evenprobe.formats.kit import CheckEntry
from evenprobe.formats.words import PlaceWord, PracticeWord, PurposeWord, SystemWord, VerdictWord
from kit.shapes import TesterOut
from sites.shapes import InShort


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


class FaultOut(Schema):
    """`since`: when it may have been faulty from; none where it was found good after all."""

    at: datetime
    by: str
    what: str
    since: datetime | None


class FaultIn(Schema):
    what: str
    since: Time | None = None


class LeaningPoint(Schema):
    """`verdict`: as if the tester were good; `without`: as if it were not. `leans`: the two differ."""

    id: UUID
    name: str
    circuit: str
    site: str
    readings: int
    dead_tests: int
    verdict: VerdictWord
    without: VerdictWord
    leans: bool


class LeaningProof(Schema):
    id: UUID
    name: str
    site: str
    begun_at: datetime
    state: str
    without: str


class LeaningOut(Schema):
    """What a tester took since a time, and what leans on it."""

    since: datetime
    points: list[LeaningPoint]
    proofs: list[LeaningProof]


class StandingOut(InShort):
    """A point with how it stands. `failed`: what of it did, by name."""

    id: UUID
    name: str
    where: str
    last_tested: datetime | None
    failed: list[str]


class StandingPage(Schema):
    """`more`: whether there are others after these."""

    points: list[StandingOut]
    more: bool


class TesterPage(Schema):
    """`from_file`: which file it came from, by whom. `strange`: and nobody has said that it is the crew's."""

    tester: TesterOut
    from_file: str
    strange: bool
    taken_over: str
    """Who said that it is, and when."""
    says: str
    blind_to: list[str]
    fits: list[FitOut]
    items: list[ItemOut]
    checks: list[CheckOut]
    faults: list[FaultOut]
    good_until: datetime | None
    """When it was last known to be good: its last good check or proof before now."""
    last_proof: LastProof | None
