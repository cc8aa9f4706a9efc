"""What the routes of hunts take and give."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema
from pydantic import Field

from base.shapes import Named, ToldLater
from evenprobe.entries.documented import Among
from evenprobe.formats.answers import RunHuntOut
from evenprobe.formats.words import PracticeWord
from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.intake import HAPPENED, HUNTED, MARKS, Conductor
from hunts.models import HuntEvent

MENDED, CLOSED = "mended", "closed"
HappenedWord = Annotated[str, Among(HAPPENED)]
MarkWord = Annotated[str, Among(MARKS)]
RunKindWord = Annotated[str, Among(HUNTED)]
HuntStateWord = Annotated[str, Among((*HuntState, MENDED, CLOSED))]


class HuntChoice(Schema):
    """`between`: the usual two conductors; empty where it is not measured between two."""

    id: RunKindWord
    title: str
    between: list[Conductor]


class HappenedOut(Schema):
    """A row of the intake. `hunts`: what can be hunted for it along a run, the usual first; none yet for some."""

    id: HappenedWord
    title: str
    first: str
    hunts: list[HuntChoice]


class SuspicionMark(Schema):
    id: MarkWord
    title: str


class IntakeOut(Schema):
    happened: list[HappenedOut]
    marks: list[SuspicionMark]


class HuntLine(Schema):
    """`said`: in a few words where it is, or what comes next."""

    id: UUID
    title: str
    site: Named
    happened: str
    kind: RunKindWord
    state: HuntStateWord
    said: str
    begun_at: datetime
    by: str
    unshown: str = ""


class HuntPoint(Schema):
    """`share`: of the box; `cable_share`: of the stretch that leads to it; `at_m` of cable from the board.

    `saw`: what was seen there, in words.
    """

    id: str
    name: str
    after: str
    length_m: float
    at_m: float
    share: float
    cable_share: float
    hidden: bool
    box_mark: str
    cable_mark: str
    saw: list[str]


class HuntSeen(Schema):
    """What was seen, or else told, and whether it is one of two that contradict."""

    event: UUID
    text: str
    at: datetime
    by: str
    contradicts: bool


class AheadOut(Schema):
    """If it shows so, where to go then."""

    when: str
    then: str


class HuntOut(HuntLine):
    """`hunted`: what is hunted, in words. `next_title`: what is to be done next, and where, in words.

    `steps`: what to do at the next place, or once it is found. `last`: what one tap takes back. `joints`: poor
    ones that were measured, in words; `load_a`: the load the last volts were under.
    """

    practice: PracticeWord
    circuit: Named
    hunted: str
    first: str
    between: list[Conductor]
    told: dict[str, str]
    answer: RunHuntOut
    next_title: str
    next_name: str
    saved_minutes: float
    advice: str
    joints: list[str]
    load_a: float | None
    steps: list[str]
    points: list[HuntPoint]
    seen: list[HuntSeen]
    last: HuntSeen | None
    ahead: list[AheadOut]
    proof: UUID | None
    proof_state: str


class HuntIn(Schema):
    circuit: UUID
    happened: HappenedWord
    kind: RunKindWord
    between: Annotated[list[Conductor] | None, Field(min_length=2, max_length=2)] = None
    also_dead: str = ""
    done_last: str = ""
    note: str = ""


class HuntEventIn(ToldLater):
    """`entry`: what was seen as a circuit file has it; a mark; what is taken back; a note."""

    kind: Annotated[str, Among(HuntEvent.Kind.values)]
    entry: dict[str, Any] = {}
