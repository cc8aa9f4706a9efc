"""What the routes of plugging in take and give."""

from uuid import UUID

from ninja import Schema

from base.shapes import Named
from evenprobe.formats.answers.plugging import MayPlugIn
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
    practice: str


class LikeOut(Schema):
    """A supply system the readings can be all right on. `share`: how likely, for order only."""

    system: str
    title: str
    share: float


class PlugInOut(MayPlugIn):
    """`reads_like`: nothing before anything that counts is measured."""

    id: UUID
    name: str
    kind: str
    terminals: list[str]
    practice: str
    site: Named
    supply: Named
    system: str
    system_title: str
    earthing: str
    equipment: EquipmentOut
    caution: str
    verdict: str
    reads_like: list[LikeOut]
    quick: list[QuickOut]


class NewSiteIn(Schema):
    name: str
    practice: str


class FedByIn(Schema):
    system: str
    earthing: str = "TN-S"


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
