"""What the sites' routes take and give."""

from uuid import UUID

from ninja import Schema

from evenprobe.formats.words import EarthingWord, PointKindWord, PracticeWord, SystemWord, VerdictWord


class SiteLine(Schema):
    id: UUID
    name: str
    practice: PracticeWord
    verdicts: list[VerdictWord]


class PointLine(Schema):
    id: UUID
    name: str
    kind: PointKindWord
    terminals: list[str]
    length_m: float | None
    length_ft: float | None
    room: str
    verdict: VerdictWord
    summary: str
    unshown: str = ""
    """Why it cannot be shown, with a reference."""


class CircuitOut(Schema):
    id: UUID
    name: str
    rating_a: float | None
    conductor: str
    residual_ma: float | None
    curve: str
    points: list[PointLine]


class BoardOut(Schema):
    id: UUID
    name: str
    circuits: list[CircuitOut]


class SupplyOut(Schema):
    id: UUID
    name: str
    system: SystemWord
    system_title: str
    earthing: EarthingWord
    boards: list[BoardOut]


class SiteOut(Schema):
    id: UUID
    name: str
    practice: PracticeWord
    supplies: list[SupplyOut]


class SiteIn(Schema):
    name: str
    practice: PracticeWord


class SupplyIn(Schema):
    site: UUID
    name: str
    system: SystemWord
    earthing: EarthingWord


class BoardIn(Schema):
    supply: UUID
    name: str


class CircuitIn(Schema):
    board: UUID
    name: str
    rating_a: float | None = None
    conductor: str | None = None
    residual_ma: float | None = None
    curve: str | None = None


class PointIn(Schema):
    circuit: UUID
    name: str
    kind: PointKindWord
    terminals: list[str]
    length_m: float | None = None
    length_ft: float | None = None
    """Instead, where feet are usual."""
    room: str = ""
