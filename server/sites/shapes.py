"""What the sites' routes take and give."""

from typing import Annotated
from uuid import UUID

from ninja import Schema

from evenprobe.entries.documented import Among
from evenprobe.formats.answers import BesideWiringOut
from evenprobe.formats.words import EarthingWord, PointKindWord, PracticeWord, SystemWord, VerdictWord

PlaceKindWord = Annotated[str, Among(("site", "supply", "board", "circuit", "point"))]


class SiteLine(Schema):
    id: UUID
    name: str
    practice: PracticeWord
    verdicts: list[VerdictWord]
    loose: bool
    retired: bool


class InShort(Schema):
    """What a list says of a point: its three answers, and the verdict in words."""

    verdict: VerdictWord
    insulation: BesideWiringOut
    protection: BesideWiringOut
    summary: str
    unshown: str = ""
    """Why it cannot be shown, with a reference."""
    old: str = ""
    """Why this is what it was, where it is being worked out again."""


class PointLine(InShort):
    id: UUID
    name: str
    kind: PointKindWord
    terminals: list[str]
    length_m: float | None
    length_ft: float | None
    room: str
    protected_by: str


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


class RetiredOut(Schema):
    """`under`: what it hangs on, by name."""

    what: PlaceKindWord
    id: UUID
    name: str
    under: str


class SiteOut(Schema):
    """`retired`: what of it is out of use, not among the rest. `from_file`: which file it came from, by whom."""

    id: UUID
    name: str
    practice: PracticeWord
    loose: bool
    supplies: list[SupplyOut]
    retired: list[RetiredOut]
    from_file: str


class EffectOut(Schema):
    """A point whose answer would be another: its verdict now, and then."""

    id: UUID
    name: str
    circuit: str
    before: VerdictWord
    after: VerdictWord


class EffectsOut(Schema):
    """`measured`: how many points with something on record it concerns."""

    measured: int
    points: list[EffectOut]


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


class RetireIn(Schema):
    retired: bool


class LooseIn(Schema):
    """`terminals`: as the survey format names them, in the practice's order."""

    practice: PracticeWord
    terminals: list[str]


class FileIn(Schema):
    circuit: UUID
    name: str
