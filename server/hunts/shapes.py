"""What the routes of hunts take and give."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from base.shapes import Named, ToldLater
from evenprobe.entries.documented import Among
from evenprobe.formats.answers import ChainHuntOut, GuidedHuntOut, RunHuntOut
from evenprobe.formats.circuits.chain import ElementEntry
from evenprobe.formats.words import PracticeWord
from evenprobe.hunting.findings import HuntState, Task
from evenprobe.hunting.intake import HAPPENED, HUNTED, MARKS, Along, Conductor
from hunts.logs import CLOSED, MENDED
from hunts.models import HuntEvent
from sites.services import LONGEST_NAME

HappenedWord = Annotated[str, Among(HAPPENED)]
MarkWord = Annotated[str, Among(MARKS)]
HuntKindWord = Annotated[str, Among(HUNTED)]
HuntStateWord = Annotated[str, Among((*HuntState, MENDED, CLOSED))]


class HuntChoice(Schema):
    """`between`: the usual two conductors; empty where it is not measured between two."""

    id: HuntKindWord
    title: str
    along: Along
    between: list[Conductor]


class HappenedOut(Schema):
    """A row of the intake. `hunts`: what can be hunted for it, the usual first."""

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
    kind: HuntKindWord
    state: HuntStateWord
    said: str
    begun_at: datetime
    by: str
    unshown: str = ""


class TellOut(Schema):
    """In words, what has to be done for it, and what was seen, as a circuit file has it."""

    when: str
    do: Annotated[str, Among(Task)]
    seen: dict[str, Any]


class HuntPoint(Schema):
    """`share`: of the box; `cable_share`: of the stretch that leads to it; `at_m` of cable from the board.

    `saw`: what was seen there, in words; `tells`: what can be told of it in one tap.
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
    tells: list[TellOut]


class HuntSeen(Schema):
    """What was seen, or else told, and whether it is one of two that contradict."""

    event: UUID
    text: str
    at: datetime
    by: str
    contradicts: bool


class AheadOut(Schema):
    """If it shows so, where to go then, and what comes after that."""

    when: str
    then: str
    after: list["AheadOut"]


class AlongRun(Schema):
    """`next_title`: what is to be done next, and where, in words. `joints`: poor ones that were measured, in words.

    `how`: what to do, by the task. `load_a`: the load the last volts were under. `standing_at`: the box or the board
    one was at last. `ahead`: what comes after each outcome, two steps on.
    """

    between: list[Conductor]
    answer: RunHuntOut
    next_title: str
    next_name: str
    saved_minutes: float
    advice: str
    joints: list[str]
    how: dict[str, list[str]]
    load_a: float | None
    points: list[HuntPoint]
    standing_at: str
    ahead: list[AheadOut]


class ChainElement(Schema):
    """`volts`: of the joint after it against the return, where it was measured."""

    id: str
    name: str
    kind: str
    closed: bool
    share: float
    volts: float | None


class AlongChain(Schema):
    """`elements`: the feed first. `how`: to measure at a joint."""

    supply_v: float
    answer: ChainHuntOut
    next_name: str
    advice: str
    how: list[str]
    elements: list[ChainElement]


class MapRound(Schema):
    """`left`: how many outlets are to be looked at in it."""

    round: int
    on: list[str]
    off: list[str]
    left: int


class MapOutlet(Schema):
    """`live`: in every round, none where nobody looked. `ways`: that feed it; `odd`: why no single one does."""

    id: str
    name: str
    live: list[bool | None]
    ways: list[str]
    odd: str


class OverBoard(Schema):
    """`round`: the one to switch now. `scheduled`: whether the schedule was filled with it."""

    rounds: list[MapRound]
    round: int | None
    outlets: list[MapOutlet]
    scheduled: bool


class HuntOut(HuntLine):
    """One of `run`, `chain`, `map` and `guide` is there, by what it goes along; `names`: of a guide's points.

    `hunted`: what is hunted, in words; `happening`: the intake's row. `steps`: what to do at what comes next, or once
    it is found. `last`: what one tap takes back.
    """

    practice: PracticeWord
    circuit: Named | None
    board: Named
    hunted: str
    happening: HappenedWord
    first: str
    told: dict[str, str]
    steps: list[str]
    seen: list[HuntSeen]
    last: HuntSeen | None
    proof: UUID | None
    run: AlongRun | None = None
    chain: AlongChain | None = None
    map: OverBoard | None = None
    guide: GuidedHuntOut | None = None
    names: dict[str, str] = {}


PlaceName = Annotated[str, Field(min_length=1, max_length=LONGEST_NAME)]


class ChainIn(Schema):
    supply_v: float
    elements: list[ElementEntry]


class HuntIn(Schema):
    """On a circuit, or, to map it, over a board: `ways` and `outlets` that are not on record, by their names.

    `fixed_on`, `fixed_off`: ways that must stay as they are, by id or by name.
    """

    circuit: UUID | None = None
    board: UUID | None = None
    happened: HappenedWord
    kind: HuntKindWord
    between: Annotated[list[Conductor] | None, Field(min_length=2, max_length=2)] = None
    chain: ChainIn | None = None
    ways: list[PlaceName] = []
    outlets: list[PlaceName] = []
    fixed_on: list[str] = []
    fixed_off: list[str] = []
    also_dead: str = ""
    done_last: str = ""
    note: str = ""


class HuntLiveIn(Schema):
    """Where the probes of a meter on the wire are: at a box or a joint, on which side of one that is taken apart."""

    at: PlaceName
    side: Literal["", "feed", "onward"] = ""
    function: str
    from_: Conductor = Field(alias="from")
    to: Conductor


class HuntEventIn(ToldLater):
    """`entry`: what was seen as a circuit file has it; a mark; what is taken back; a note."""

    kind: Annotated[str, Among(HuntEvent.Kind.values)]
    entry: dict[str, Any] = {}
    tester: UUID | None = None
