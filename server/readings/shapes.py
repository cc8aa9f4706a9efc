"""What the Bench's routes take and give."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema
from pydantic import ConfigDict, Field

from base.shapes import Named
from evenprobe.entries import Time
from evenprobe.entries.documented import Among, WrittenAs
from evenprobe.formats import ReadingEntry
from evenprobe.formats.answers import InterpretationOut, LoadsOut, SweepOut
from evenprobe.formats.words import (
    EarthingWord,
    ObstacleWord,
    PointKindWord,
    PracticeWord,
    QuantityWord,
    SystemWord,
    VerdictWord,
)
from evenprobe.interpretation.next_measurement import Obstacle

ReadingJson = Annotated[dict[str, Any], WrittenAs(ReadingEntry)]


class ReadingOut(Schema):
    """One line of the record. `status`: counts, corrected or withdrawn."""

    id: UUID
    entry: ReadingJson
    tester: UUID | None
    tester_label: str
    source: str
    """Typed, captured from a meter's link, or brought in from a file."""
    taken_at: datetime
    by: str
    supersedes: UUID | None
    status: Annotated[str, Among(("counts", "corrected", "withdrawn"))]


class DeadTestOut(Schema):
    """A test of the circuit's sheet that counts here. `entry`: as the survey format has a reading."""

    id: UUID
    title: str
    entry: ReadingJson
    taken_at: datetime
    by: str


class BenchOut(Schema):
    id: UUID
    name: str
    kind: PointKindWord
    terminals: list[str]
    length_m: float | None
    practice: PracticeWord
    nominal_volts: float
    system: SystemWord
    system_title: str
    earthing: EarthingWord
    site: Named
    from_file: str
    """Which file the point came from, by whom."""
    loose: bool
    """It stands nowhere yet, and its supply is assumed from what it looks like."""
    board: str
    circuit: Named
    rating_a: float | None
    conductor: str
    residual_ma: float | None
    curve: str
    neighbours: list[Named]
    readings: list[ReadingOut]
    dead_tests: list[DeadTestOut]
    unfit: dict[str, dict[str, str]]
    """By tester and quantity: why what it shows here would clear nothing. Left out where it would."""
    may_trip: dict[str, str]
    """By tester: what its low impedance may do to the circuit's residual-current device. Left out where nothing."""
    functions: dict[str, list[str]]
    """By tester: what it can be set to here; of a proved multimeter, where none is named, under the empty name."""
    interpretation: InterpretationOut
    covered: bool
    """Whether nothing is concluded in it yet, as in practice."""
    to_follow: bool
    """The verdict is certain, and what can still be is being worked out: asked for again, the point comes with it."""
    cannot: list[ObstacleWord]
    """What was said today not to be had at this site, so that no next test needs it."""
    loads: LoadsOut
    sweeps: list[SweepOut]


class QuickOut(Schema):
    """One measurement of the quick set. `entry`: the reading that is it, where there is one."""

    model_config = ConfigDict(populate_by_name=True)

    quantity: QuantityWord
    from_: str | None = Field(alias="from")
    to: str | None
    test_ma: float | None
    reading: UUID | None
    entry: ReadingJson | None


class RecordIn(Schema):
    """`entry`: a reading as the survey format writes it, without id and instrument.

    `taken_at`, `sent_at`: where both are given, by the device's clock, and only the difference is believed.
    `verdict_first`: answered without what can still be, where the verdict is certain and the rest has to be worked out.
    """

    entry: ReadingJson
    tester: UUID | None = None
    supersedes: UUID | None = None
    taken_at: Time | None = None
    sent_at: Time | None = None
    verdict_first: bool = False


class JudgeReadingIn(Schema):
    """As for a `RecordIn`."""

    entry: ReadingJson
    tester: UUID | None = None
    supersedes: UUID | None = None


class JudgedReadingOut(Schema):
    """The verdict that the point would have, where it is certain before the whole is worked out."""

    verdict: VerdictWord | None
    summary: str


class WithdrawalIn(Schema):
    reading: UUID


class CannotIn(Schema):
    """All of it: what is left out can be had again."""

    cannot: list[Obstacle]


class BringIn(Schema):
    name: str = ""
    survey: dict[str, Any]
