"""What the routes of plugging in take and give."""

from uuid import UUID

from ninja import Schema

from base.shapes import Named
from evenprobe.formats.answers.plugging import MayPlugIn
from evenprobe.formats.words import EarthingWord, PointKindWord, PracticeWord, SystemWord, VerdictWord
from readings.shapes import QuickOut


class EquipmentIn(Schema):
    label: str
    lines: int
    amperes: float
    volts_to_neutral: float | None = None
    volts_between_lines: float | None = None
    earth: bool = True
    continuous: bool = False
    hertz: float | None = None


class EquipmentOut(EquipmentIn):
    id: UUID


class OutletLine(Schema):
    """An outlet of the crew's sites, to choose from."""

    id: UUID
    name: str
    circuit: str
    site: str
    practice: PracticeWord


class LikeOut(Schema):
    """A supply system the readings can be all right on. `share`: how likely, for order only."""

    system: SystemWord
    title: str
    share: float


class PlugInOut(MayPlugIn):
    """`reads_like`: nothing before anything that counts is measured."""

    id: UUID
    name: str
    kind: PointKindWord
    terminals: list[str]
    practice: PracticeWord
    site: Named
    supply: Named
    system: SystemWord
    system_title: str
    earthing: EarthingWord
    equipment: EquipmentOut
    caution: str
    verdict: VerdictWord
    reads_like: list[LikeOut]
    quick: list[QuickOut]


class NewSiteIn(Schema):
    name: str
    practice: PracticeWord


class FedByIn(Schema):
    system: SystemWord
    earthing: EarthingWord = "TN-S"


class OutletIn(Schema):
    name: str
    terminals: list[str]
    rating_a: float | None = None
    residual_ma: float | None = None


class StrangeOutletIn(Schema):
    """`new_site`: where the site is not on record either."""

    site: UUID
    new_site: NewSiteIn | None = None
    supply: FedByIn
    outlet: OutletIn
