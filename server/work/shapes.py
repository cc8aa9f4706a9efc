"""What the Bench's routes take and give."""

from datetime import datetime
from typing import Any
from uuid import UUID

from ninja import Schema
from pydantic import ConfigDict, Field

from evenprobe.entries import Time
from sheets.shapes import BarOut, LimitOut, OutcomeOut


class ReasonOut(Schema):
    reading: str
    would_show: list[float]
    unit: str
    seen: float
    text: str


class ConditionOut(Schema):
    id: str
    title: str
    notice: str
    look_for: str
    mend: str
    severity: str
    standing: bool
    strained: bool
    likelihood: float
    lines: list[list[str]]
    """Of a condition about one line of several, those it can be about."""
    reasons: list[ReasonOut]


class JudgementOut(Schema):
    limit: str
    reading: str
    result: str
    low: float
    high: float | None
    unit: str
    source: str
    text: str


class CircumstanceOut(Schema):
    load_here_a: float | None = None
    load_elsewhere_a: float | None = None
    device: str | None = None
    neutral: str | None = None
    input: str | None = None
    test_ma: float | None = None


class NextTestOut(Schema):
    model_config = ConfigDict(populate_by_name=True)

    quantity: str
    from_: str | None = Field(alias="from")
    to: str | None
    instrument: str
    instrument_kind: str
    circumstance: CircumstanceOut
    rules_out: list[str]
    information_bits: float
    seconds: int
    why: str


class NotCountedOut(Schema):
    reading: str
    why: str
    warns: bool = False


class StoryOut(Schema):
    title: str
    conditions: list[str]
    severity: str
    potentials: dict[str, list[float]]
    phasors: dict[str, list[float]]
    """Of each conductor volts in line with the first line's source, and at right angles to it."""


class InterpretationOut(Schema):
    verdict: str
    summary: str
    conditions: list[ConditionOut]
    judgements: list[JudgementOut]
    retake: list[str]
    next_tests: list[NextTestOut]
    next_tests_note: str
    not_counted: list[NotCountedOut]
    stories: list[StoryOut]
    healthy_band: list[float] | None


class ReadingOut(Schema):
    """One line of the record. `status`: counts, corrected or withdrawn."""

    id: UUID
    entry: dict[str, Any]
    tester: UUID | None
    tester_label: str
    taken_at: datetime
    by: str
    supersedes: UUID | None
    status: str


class DeadTestOut(Schema):
    """A test of the circuit's sheet that counts here. `entry`: as the survey format has a reading."""

    id: UUID
    title: str
    entry: dict[str, Any]
    taken_at: datetime
    by: str


class Crumb(Schema):
    id: UUID
    name: str


class Neighbour(Schema):
    id: UUID
    name: str


class DrawOut(Schema):
    """A current against its device. `outcome`: none where there is nothing to hold it against; `text` says why."""

    reading: str
    conductor: str | None
    text: str
    outcome: OutcomeOut | None


class ResistanceOut(Schema):
    """Ohms, least and most: what it has, and what a sound one here would have."""

    ohm: list[float]
    expected: list[float]
    poor: bool
    bar: BarOut


class PartOfLoop(ResistanceOut):
    terminal: str


class LoopOut(ResistanceOut):
    """`drop_v`: lost at the device's rating. `drop_passes`: none where the limit is within it, or nothing is known."""

    reading: str
    pair: list[str]
    amperes: float
    drop_v: list[float] | None
    drop_passes: bool | None
    limit: LimitOut
    text: str
    parts: list[PartOfLoop]


class LoadsOut(Schema):
    draws: list[DrawOut]
    loops: list[LoopOut]


class StationOut(Schema):
    """`across`: its place along the walk, as a share."""

    m: float
    alarm: bool
    across: float


class SweepOut(Schema):
    reading: str
    terminal: str
    text: str
    stations: list[StationOut]


class BenchOut(Schema):
    id: UUID
    name: str
    kind: str
    terminals: list[str]
    length_m: float | None
    practice: str
    nominal_volts: float
    system: str
    earthing: str
    site: Crumb
    board: str
    circuit: Crumb
    rating_a: float | None
    conductor: str
    residual_ma: float | None
    curve: str
    neighbours: list[Neighbour]
    readings: list[ReadingOut]
    dead_tests: list[DeadTestOut]
    unfit: dict[str, dict[str, str]]
    """By tester and quantity: why what it shows here would clear nothing. Left out where it would."""
    may_trip: dict[str, str]
    """By tester: what its low impedance may do to the circuit's residual-current device. Left out where nothing."""
    functions: dict[str, list[str]]
    """By tester: what it can be set to here; of a proved multimeter, where none is named, under the empty name."""
    interpretation: InterpretationOut
    loads: LoadsOut
    sweeps: list[SweepOut]


class QuickOut(Schema):
    """One measurement of the quick set. `entry`: the reading that is it, where there is one."""

    model_config = ConfigDict(populate_by_name=True)

    quantity: str
    from_: str | None = Field(alias="from")
    to: str | None
    test_ma: float | None
    reading: UUID | None
    entry: dict[str, Any] | None


class SeenOut(Schema):
    id: str
    title: str
    severity: str


class SightHereOut(Schema):
    """Of what still stands what a tester can strike out if all is well, and what not; worst first."""

    can: list[SeenOut]
    cannot: list[SeenOut]
    says: str
    blind_to: list[str]


class RecordIn(Schema):
    """`entry`: a reading as the survey format writes it, without id and instrument."""

    entry: dict[str, Any]
    tester: UUID | None = None
    supersedes: UUID | None = None
    taken_at: Time | None = None


class WithdrawalIn(Schema):
    reading: UUID


class BringIn(Schema):
    name: str = ""
    survey: dict[str, Any]
