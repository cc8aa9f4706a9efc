"""What the routes of the proofs of death take and give."""

from datetime import datetime
from typing import Any
from uuid import UUID

from ninja import Schema
from pydantic import ConfigDict, Field

from evenprobe.entries import Time


class Aliased(Schema):
    model_config = ConfigDict(populate_by_name=True)


class MissingOut(Aliased):
    code: str
    text: str
    source: str | None = None
    from_: str | None = Field(None, alias="from")
    to: str | None = None
    mode: str | None = None


class ProofProblemOut(Schema):
    code: str
    text: str
    event: int
    reasons: list[str]


class PairOut(Aliased):
    from_: str = Field(alias="from")
    to: str
    done: bool
    shows_v: float | None
    below_v: float | None
    needs: str | None
    unexplained: bool


class SourceOut(Schema):
    id: str
    label: str
    kind: str
    off: bool
    locked: bool
    lock: str


class NextOut(Aliased):
    step: str
    text: str
    source: str | None
    from_: str | None = Field(alias="from")
    to: str | None
    mode: str | None
    tester: str | None


class SettledOut(Schema):
    was: str
    text: str
    event: int


class StateOut(Schema):
    """`was`: of what came from a file, how it stood by the file; else empty."""

    state: str
    was: str = ""
    proved_at: datetime | None
    expires_at: datetime | None
    missing: list[MissingOut]
    problems: list[ProofProblemOut]
    pairs: list[PairOut]
    sources: list[SourceOut]
    next: NextOut
    history: list[SettledOut]
    prove_again_by: datetime | None
    stated_at: datetime | None
    stated_by: str
    was_proved_at: datetime | None
    loosened: list[str]
    reason: str


class EventOut(Schema):
    """`counts`: it holds the state up. `why`: why it does not, or what it raised."""

    id: UUID
    type: str
    entry: dict[str, Any]
    tester: UUID | None
    tester_label: str
    at: datetime
    by: str
    counts: bool
    why: list[str]


class ProofTester(Schema):
    """A tester of the crew, for this proof. `sets`: whether function and range must be asked at each proof.
    `screens`: whether it sees a field without touching."""

    id: UUID
    label: str
    screens: bool
    kind_name: str
    fit: bool
    problems: list[str]
    warnings: list[str]
    rating: str
    steps_v: list[float]
    low_z: bool
    sets: bool


class Named(Schema):
    id: UUID
    name: str


class ProofOut(Schema):
    id: UUID
    name: str
    what: str
    site: Named
    circuit: Named | None
    practice: str
    system_title: str
    terminals: list[str]
    place: str
    wet: bool
    asked: dict[str, bool]
    begun_at: datetime
    by: str
    brought_at: datetime | None
    now: datetime
    clock: str
    window_min: float
    unattended_min: float
    state: StateOut
    events: list[EventOut]
    testers: list[ProofTester]


class ProofLine(Schema):
    id: UUID
    name: str
    what: str
    site: str
    state: str
    said: str
    next: str = ""
    expires_at: datetime | None = None
    stated_by: str = ""
    unshown: str = ""
    """Why it cannot be shown, with a reference."""
    by: str
    brought_at: datetime | None
    now: datetime


class SourceIn(Schema):
    id: str
    label: str
    kind: str = "device"


class ProofIn(Schema):
    supply: UUID
    circuit: UUID | None = None
    name: str
    what: str
    terminals: list[str]
    place: str = "installation"
    wet: bool = False
    sources: list[SourceIn]
    asked: dict[str, bool]


class EventIn(Schema):
    """`entry`: an event as the isolation format writes it, without time, author and tester. `at`, `sent_at`: by the
    device's clock, when it happened and when it was sent; only the difference is believed."""

    entry: dict[str, Any]
    tester: UUID | None = None
    leads: UUID | None = None
    adapters: list[UUID] = []
    at: Time | None = None
    sent_at: Time | None = None


class LogIn(Schema):
    """An isolation log, and the supply of the crew's it was made on."""

    supply: UUID
    log: dict[str, Any]


class QuestionOut(Schema):
    kind: str
    asks: str
    isolate: str


class ProofReference(Schema):
    questions: list[QuestionOut]
    whats: list[str]
    handbook: dict[str, float]


class RulesOut(Schema):
    proof_window_min: float
    unattended_min: float
    dead_kinds: list[str] | None
    least_rating: bool
    reason: str


class RulesIn(Schema):
    """What is left out is the handbook's."""

    proof_window_min: float | None = None
    unattended_min: float | None = None
    dead_kinds: list[str] | None = None
    least_rating: bool = False
    reason: str = ""
