"""What the routes of the dead tests take and give."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema
from pydantic import Field

from base.shapes import Named, Titled, ToldLater
from evenprobe.deadtests.energising import STATEMENTS
from evenprobe.deadtests.sheet import Step
from evenprobe.entries.documented import Among, WrittenAs
from evenprobe.formats.answers import BarOut, OutcomeOut
from evenprobe.formats.sheet import LookedAt, SheetEntryAsTyped
from evenprobe.formats.words import DeadTestWord, PracticeWord
from evenprobe.wiring.circumstances import Loads, Neutral

_LARGEST_FIGURE = 1e12
"""Of a part, in whatever unit: far beyond any there is, and its square still a number."""


StepWord = Annotated[str, Among(Step)]


class JudgedOut(Schema):
    """`test`: the whole entry that was judged. `shown`: what the display showed, in words.

    `doubt`: why it could clear nothing whatever it shows.
    """

    test: dict[str, Any]
    shown: str
    outcome: OutcomeOut
    bar: BarOut | None
    doubt: str


class TakenOut(JudgedOut):
    id: UUID
    at: datetime
    by: str
    tester: UUID | None
    tester_label: str
    believed: bool


class LineOut(Schema):
    """`earlier`: how many tests of it were made before the one in force."""

    id: str
    step: StepWord
    kind: DeadTestWord
    title: str
    why: str
    preset: dict[str, Any]
    taken: TakenOut | None
    earlier: int
    left: str
    may_be_left: bool


class StepOut(Schema):
    id: StepWord
    title: str
    how: str
    done: bool
    warnings: list[str]


class LookOut(Schema):
    id: LookedAt
    title: str
    good: bool | None
    entry: UUID | None
    photo: UUID | None
    note: str
    by: str


class InTheWayOut(Schema):
    code: str
    text: str
    line: str | None


class LockOut(Schema):
    name: str
    put_by: str
    taken_by: str | None
    source: str
    own: bool


class StatementOut(Schema):
    id: Annotated[str, Among(STATEMENTS)]
    title: str
    said_by: str


class EnergisedOut(Schema):
    at: datetime
    by: str
    reason: str


class GateOut(Schema):
    in_the_way: list[InTheWayOut]
    statements: list[StatementOut]
    locks: list[LockOut]
    energised: EnergisedOut | None
    shortest_reason: int


class RingBarOut(Schema):
    outlet: str
    pair: str
    ohms: float
    up: float
    expected: float
    limit: float
    spur: bool
    poor_joint: bool


class MarkOut(Schema):
    sheet: UUID
    at: datetime
    mohm_20c: float
    across: float
    up: float
    halved: bool


class TickOut(Schema):
    mohm: float
    up: float


class HistoryOut(Schema):
    """Of one pair. Shares of the picture."""

    pair: str
    title: str
    marks: list[MarkOut]
    limit_mohm: float
    limit_up: float
    ticks: list[TickOut]
    halved: bool


class SheetTester(Schema):
    """`unfit`: why it could clear nothing, by kind of test: `ohms`, `insulation`.

    `best_for`: which of them it is taken for first.
    """

    id: UUID
    label: str
    best_for: list[str]
    unfit: dict[str, str]


class SheetProof(Schema):
    id: UUID
    name: str
    state: str
    expires_at: datetime | None
    now: datetime


class EntryOut(Schema):
    """One line of the sheet's log, in words."""

    id: UUID
    at: datetime
    by: str
    says: str
    status: Annotated[str, Among(("counts", "taken back"))]


class SheetOut(Schema):
    id: UUID
    site: Named
    circuit: Named
    board: str
    practice: PracticeWord
    system_title: str
    wiring: str
    wiring_why: str
    test_v: float
    ring: bool
    temperature_c: float | None
    begun_at: datetime
    by: str
    dead: bool
    proof: SheetProof | None
    loads: Loads | None
    neutral: Neutral | None
    null_ohm: float | None
    null_says: str
    holds_s: float | None
    """Seconds the run would hold its charge if left alone after the insulation test."""
    steps: list[StepOut]
    look: list[LookOut]
    lines: list[LineOut]
    others: list[TakenOut]
    gate: GateOut
    ring_bars: list[RingBarOut]
    history: list[HistoryOut]
    testers: list[SheetTester]
    points: list[Titled]
    entries: list[EntryOut]


class SheetLine(Schema):
    """`state`: energised, clear, in-the-way; `halved`: insulation fell by half since the visit before.

    `fails`: a test in force fails; `said` is the first thing in the way, that one before others.
    """

    id: UUID
    circuit: str
    board: str
    site: str
    begun_at: datetime
    state: Annotated[str, Among(("energised", "in-the-way", "clear"))]
    said: str
    left: int
    dead: bool
    halved: bool
    fails: bool
    lowest: str
    """The lowest insulation of its pairs at 20 °C, in words."""
    unshown: str = ""
    """Why it cannot be shown, with a reference."""


class CircuitForSheet(Schema):
    id: UUID
    name: str
    board: str
    site: str
    practice: PracticeWord
    sheet: UUID | None


class TogetherOut(Schema):
    """A board's circuits measured together: what they should read, in words."""

    board: str
    site: str
    says: str


class SheetList(Schema):
    sheets: list[SheetLine]
    together: list[TogetherOut]
    circuits: list[CircuitForSheet]


class QuickCheckOut(Schema):
    """A quick check of a part. `needs`: the figures on the part it takes."""

    id: str
    title: str
    kind: DeadTestWord
    function: str
    jack: str
    unit: str
    first: str
    expect: str
    needs: list[str]
    presets: dict[str, str]
    leaves_out: list[str]
    """Fields of its kind's form that it does not ask for."""


class SheetReference(Schema):
    wirings: list[Titled]
    checks: list[QuickCheckOut]


class SheetIn(Schema):
    circuit: UUID
    proof: UUID | None = None
    wiring: str = "ordinary"
    ring: bool = False
    temperature_c: float | None = None


class EntryIn(ToldLater):
    """`entry`: as the sheet's format has it; None takes back what it supersedes."""

    entry: Annotated[dict[str, Any], WrittenAs(SheetEntryAsTyped)] | None
    tester: UUID | None = None
    supersedes: UUID | None = None


class JudgeIn(Schema):
    """A test somebody is typing, of a line of a sheet, or with no sheet of a part."""

    test: dict[str, Any]
    line: str | None = None
    tester: UUID | None = None


class PartTestIn(Schema):
    practice: PracticeWord
    test: dict[str, Any]


class AdviseIn(Schema):
    check: str
    figures: dict[str, Annotated[float, Field(le=_LARGEST_FIGURE)]] = {}


class AdviceOut(Schema):
    range_top: float
    range_says: str
    over_range: str
    expected: float | None


class TestsIn(Schema):
    tests: dict[str, Any]
