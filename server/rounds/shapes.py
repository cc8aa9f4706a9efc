"""What the routes of rounds take and give."""

from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema

from base.shapes import Named, ToldLater
from evenprobe.entries.documented import Among
from evenprobe.formats.words import PointKindWord, PracticeWord, VerdictWord
from evenprobe.rounds import StopState
from readings.shapes import QuickOut
from rounds.models import RoundEvent
from sites.shapes import InShort


class StopOut(InShort):
    """`state`: left, begun, skipped, quick or full. `reason`: why it was skipped.

    `unfit`: why a reading of it cannot confirm safe, where one does not.
    """

    id: UUID
    name: str
    circuit: str
    kind: PointKindWord
    terminals: list[str]
    state: Annotated[str, Among(StopState)]
    reason: str
    unfit: str
    quick: list[QuickOut]


class PressOut(Schema):
    """`state`: pressed, while the board is watched; dark, until what tripped is reset."""

    point: UUID
    name: str
    state: Annotated[str, Among(("pressed", "dark"))]
    at: datetime
    by: str


class RoundLine(Schema):
    """`skipped` and `left` and `done` add up to the outlets; `full` are those of `done` that had the full check.

    `worst`: the verdict that needs most doing, of all its outlets.
    """

    id: UUID
    title: str
    site: Named
    begun_at: datetime
    by: str
    outlets: int
    done: int
    full: int
    skipped: int
    left: int
    worst: VerdictWord
    unshown: str = ""
    """Why it cannot be shown, with a reference."""


class RoundOut(RoundLine):
    """`next`: the outlet that comes next; none when none is left. `goes_dark`: what the device takes with it.

    `shortest_reason`: how many letters a reason to skip has at least.
    """

    practice: PracticeWord
    tester: UUID | None
    tester_label: str
    tester_kind: str
    plugs_in: bool
    stops: list[StopOut]
    next: UUID | None
    press: PressOut | None
    goes_dark: list[str]
    shortest_reason: int


class RoundIn(Schema):
    site: UUID
    circuit: UUID | None = None
    room: str = ""
    tester: UUID | None = None


class RoundEventIn(ToldLater):
    point: UUID
    kind: Annotated[str, Among(RoundEvent.Kind.values)]
    reason: str = ""
    tripped: bool | None = None
